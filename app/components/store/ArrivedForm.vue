<script setup lang="ts">
/** What was ordered has come: its number, typed or scanned from its own label, is all that is wanted. */
const props = defineProps<{ productId: number; amount: number; unit: 'ml' | 'g' | 'piece' | 'm' }>()
const emit = defineEmits<{ added: [] }>()
const open = ref(false)
const scanning = ref(false)
const { draft, errors, busy, submit } = useForm('POST /api/lots', () => ({
  ...{ productId: props.productId, code: '', amount: props.amount, bestBefore: null as string | null },
}))
async function add() {
  if (!(await submit({}))) return
  open.value = false
  emit('added')
}
function scanned(text: string) {
  scanning.value = false
  draft.value.code = text.trim().slice(0, 60)
}
</script>

<template>
  <button v-if="!open" class="chip justify-self-start" @click="open = true">{{ w('store.arrived') }}</button>
  <form v-else class="grid sm:grid-cols-2 gap-3 sm:col-span-2" data-test="arrived" @submit.prevent="add">
    <TextField v-model="draft.code" :label="w('store.code')" :error="errors.code" />
    <NumberField
      v-model="draft.amount"
      :label="w('store.amount', { unit: w(`store.unit.${unit}`) })"
      step="any"
      :min="0"
      :error="errors.amount"
    />
    <DateField v-model="draft.bestBefore" :label="w('store.bestBefore')" :error="errors.bestBefore" />
    <p class="sm:col-span-2 flex flex-wrap gap-3 items-end">
      <button class="act" :disabled="busy">{{ w('store.arrived') }}</button>
      <button type="button" class="act act-quiet" @click="scanning = !scanning">{{ w('scan.open') }}</button>
      <button type="button" class="act act-quiet" @click="open = false">{{ w('cancel') }}</button>
    </p>
    <LazyScanCode v-if="scanning" class="sm:col-span-2" @read="scanned" />
  </form>
</template>
