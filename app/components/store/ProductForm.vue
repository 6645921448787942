<script setup lang="ts">
/** A product: what it is called, of which class, what it costs, where and in which sizes it is bought. */
import { MATERIALS } from '#core/materials'
import { CONSUMABLES, CONSUMABLE_SLUGS, isConsumable, PRICED_BY, unitOf } from '#core/store'

type Product = AnswerOf<'GET /api/store'>['products'][number]
const props = defineProps<{ product?: Product }>()
const emit = defineEmits<{ saved: [] }>()
const classes = [
  ...namedOptions(MATERIALS),
  ...CONSUMABLE_SLUGS.map(value => ({ value, label: CONSUMABLES[value].name })),
]
const kind = ref<string>(props.product?.class ?? MATERIALS[0]!.slug)
const name = ref(props.product?.name ?? '')
const price = ref<number | null>(props.product ? props.product.price_minor / 100 : 300)
const supplier = ref(props.product?.supplier ?? '')
const containers = ref(props.product?.containers ?? '')
const least = ref<number | null>(props.product?.least ?? 0)
const grit = ref(props.product?.grit ?? '')
const unit = computed(() => unitOf(kind.value))
const graded = computed(() => isConsumable(kind.value) && CONSUMABLES[kind.value].graded)
const sizes = computed(() =>
  containers.value
    .split(/[,;]/)
    .map(t => t.trim())
    .filter(Boolean)
    .map(Number),
)
const body = () => ({
  ...{ name: name.value, priceMinor: Math.round((price.value ?? 0) * 100), supplier: supplier.value },
  ...{ containers: sizes.value, least: least.value ?? 0, grit: graded.value ? grit.value : '' },
})
const fresh = useSubmit('POST /api/products', () => ({ ...body(), class: kind.value }))
const change = useSubmit('PATCH /api/products/:id', () => ({ ...body(), rowVersion: props.product?.row_version ?? 0 }))
const errors = computed(() => (props.product ? change : fresh).errors.value)
const sizesWrong = computed(() => Object.entries(errors.value).find(([f]) => f.startsWith('containers'))?.[1])
async function save() {
  const done = props.product ? await change.submit({ id: props.product.id }) : await fresh.submit({})
  if (!done) return
  if (!props.product) name.value = ''
  emit('saved')
}
</script>

<template>
  <form class="grid gap-3" @submit.prevent="save">
    <h2 v-if="!product">{{ w('store.addProduct') }}</h2>
    <TextField v-model="name" :label="w('store.name')" :error="errors.name" />
    <FindField v-if="!product" v-model="kind" :label="w('store.class')" :options="classes" :error="errors.class" />
    <TextField v-if="graded" v-model="grit" :label="w('store.grit')" :error="errors.grit" />
    <NumberField
      v-model="price"
      :label="w('store.price', { per: w(`store.per.${unit}`) })"
      step="any"
      :min="0"
      :error="errors.priceMinor"
    />
    <TextField v-model="supplier" :label="w('store.supplier')" :error="errors.supplier" />
    <TextField
      v-model="containers"
      :label="w('store.containers', { unit: w(`store.unit.${unit}`) })"
      :error="sizesWrong"
    />
    <NumberField
      v-model="least"
      :label="w('store.least', { unit: w(`store.unit.${unit}`) })"
      step="any"
      :min="0"
      :error="errors.least"
    />
    <p v-if="PRICED_BY[unit] === 1000" class="caption">{{ w('store.sizesWhy') }}</p>
    <button class="act">{{ product ? w('save') : w('store.addProduct') }}</button>
  </form>
</template>
