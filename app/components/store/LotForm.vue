<script setup lang="ts">
/** A can comes in. */
type Product = AnswerOf<'GET /api/store'>['products'][number]
const props = defineProps<{ products: readonly Product[] }>()
const emit = defineEmits<{ added: [] }>()
const fresh = () => ({
  ...{ productId: props.products[0]?.id ?? null, code: '', amount: 1000 as number | null },
  ...{ bestBefore: null as string | null, place: '' },
})
const draft = ref(fresh())
const product = computed(() => props.products.find(p => p.id === draft.value.productId) ?? null)
const sizes = computed(() => (product.value?.containers ?? '').split(',').map(Number).filter(Boolean))
watch(
  () => product.value?.id,
  () => {
    const unit = product.value?.unit
    draft.value.amount = sizes.value[0] ?? (unit === 'piece' || unit === 'm' ? 1 : 1000)
  },
  { immediate: true },
)
watchEffect(() => {
  draft.value.productId ??= props.products[0]?.id ?? null
})
const { errors, busy, submit } = useSubmit('POST /api/lots', () => ({
  ...{ ...draft.value, place: draft.value.place.trim() || null },
}))
async function add() {
  if (!(await submit({}))) return
  draft.value = { ...fresh(), productId: draft.value.productId }
  emit('added')
}
</script>

<template>
  <form class="grid gap-3" data-test="add-lot" @submit.prevent="add">
    <h2>{{ w('store.addLot') }}</h2>
    <FindField
      v-model="draft.productId"
      :label="w('store.product')"
      :options="namedOptions(products)"
      :error="errors.productId"
    />
    <TextField v-model="draft.code" :label="w('store.code')" :error="errors.code" />
    <NumberField
      v-model="draft.amount"
      :label="w('store.amount', { unit: w(`store.unit.${product?.unit ?? 'ml'}`) })"
      step="any"
      :min="0"
      :error="errors.amount"
    />
    <span v-if="sizes.length > 1" class="flex flex-wrap gap-2">
      <button v-for="s in sizes" :key="s" type="button" class="chip" @click="draft.amount = s">{{ s }}</button>
    </span>
    <DateField v-model="draft.bestBefore" :label="w('store.bestBefore')" :error="errors.bestBefore" />
    <TextField v-model="draft.place" :label="w('store.place')" :error="errors.place" />
    <button class="act" :disabled="!products.length || busy">{{ w('store.addLot') }}</button>
  </form>
</template>
