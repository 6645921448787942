<script setup lang="ts">
/** What is paid before the work is done, and what keeping a piece costs that nobody fetches. */
const props = defineProps<{ piece: { id: number; row_version: number }; may: Pick<MayAsk, 'deposit' | 'storage'> }>()
const emit = defineEmits<{ changed: [] }>()
const { money } = useFormat()
const paid = ref<number | null>(props.may.deposit.paid_minor / 100)
watch(
  () => props.may.deposit.paid_minor,
  minor => (paid.value = minor / 100),
)
async function save() {
  const body = { rowVersion: props.piece.row_version, minor: Math.round((paid.value ?? 0) * 100) }
  if (await send('PUT /api/pieces/:id/deposit', { id: props.piece.id, body })) emit('changed')
}
</script>

<template>
  <section class="mt-6" data-test="deposit">
    <h2>{{ w('deposit.title') }}</h2>
    <p v-if="may.deposit.asked_minor > 0" class="clock">
      {{ w('deposit.asked', { sum: money(may.deposit.asked_minor) }) }}
    </p>
    <p v-if="may.storage" class="verdict">
      {{ w('deposit.storage', { n: may.storage.days, sum: money(may.storage.minor) }) }}
    </p>
    <form class="flex flex-wrap gap-3 items-end mt-2" @submit.prevent="save">
      <NumberField v-model="paid" :label="w('deposit.paid')" :min="0" :max="1000000" step="any" />
      <button class="act act-quiet">{{ w('save') }}</button>
    </form>
  </section>
</template>
