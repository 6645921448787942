<script setup lang="ts">
/**
 * What was used, from which lots. The product that the plan names is offered first; where it names none, or there are
 * several of its class, nobody's lot is chosen for them.
 */
export interface Used {
  lotId: number | null
  amountMl: number
  word: string
}
const props = defineProps<{
  step: { product?: string | null; productId?: number | null; amount_ml?: number | null }
}>()
const uses = defineModel<Used[]>({ required: true })
const store = ref<AnswerOf<'GET /api/store'> | null>(null)
const MOST = 5
const rank = (l: { product_id: number; class: string }) => {
  if (l.product_id === props.step.productId) return 0
  return l.class === props.step.product ? 1 : 2
}
const lots = computed(() =>
  (store.value?.products ?? [])
    .flatMap(p => p.lots.map(l => ({ ...l, name: p.name, class: p.class })))
    .sort((a, b) => rank(a) - rank(b)),
)
const lotOf = (u: Used) => lots.value.find(l => l.id === u.lotId)
const short = (u: Used) => {
  const lot = lotOf(u)
  return lot !== undefined && u.amountMl > lot.left_ml ? lot : null
}
/** What a lot is against the plan: its own product, another of its class, another class. */
const against = (u: Used) => {
  const lot = lotOf(u)
  if (!lot || rank(lot) === 0) return null
  if (rank(lot) === 2) return w('bench.otherClass', { name: lot.name })
  return props.step.productId ? w('bench.otherProduct', { name: lot.name }) : null
}
const total = computed(() => uses.value.reduce((sum, u) => sum + (u.lotId === null ? 0 : u.amountMl || 0), 0))
const unsaid = computed(() => uses.value.some(u => short(u) !== null && !u.word.trim()))
defineExpose({ unsaid })
const add = () => uses.value.push({ lotId: null, amountMl: 0, word: '' })
onMounted(async () => {
  const amountMl = Math.ceil(props.step.amount_ml ?? 0)
  uses.value = [{ lotId: null, amountMl, word: '' }]
  store.value = await call('GET /api/store')
  const own = lots.value.filter(l => l.left_ml > 0 && rank(l) === 0)
  const ofClass = lots.value.filter(l => l.left_ml > 0 && rank(l) <= 1)
  const one = new Set(ofClass.map(l => l.product_id)).size === 1
  uses.value[0]!.lotId = own[0]?.id ?? (one ? ofClass[0]!.id : null)
})
</script>

<template>
  <div class="mt-4 grid gap-3" data-test="used">
    <div v-for="(use, i) in uses" :key="i" class="grid grid-cols-[minmax(0,1fr)_7rem] gap-3 items-end">
      <FindField
        v-model="use.lotId"
        :label="w('bench.lot')"
        :options="[
          { value: null, label: w('bench.noLot') },
          ...lots.map(l => ({ value: l.id, label: `${l.name}, ${l.code}: ${Math.round(l.left_ml)} ml` })),
        ]"
      />
      <label
        >{{ w('bench.used') }}
        <input v-model.number="use.amountMl" class="field" type="number" min="0" max="100000" inputmode="numeric"
      /></label>
      <p v-if="against(use)" class="verdict verdict-warn col-span-2">{{ against(use) }}</p>
      <label v-if="short(use)" class="col-span-2"
        >{{ w('bench.short', { left: Math.round(short(use)!.left_ml) }) }}
        <input v-model="use.word" class="field" maxlength="300"
      /></label>
    </div>
    <div class="flex flex-wrap gap-4 items-center">
      <button v-if="uses.length < MOST" class="underline min-h-11" @click="add">{{ w('bench.anotherLot') }}</button>
      <span v-if="step.amount_ml" class="caption">{{
        w('bench.plannedUsed', { planned: Math.ceil(step.amount_ml), used: Math.round(total) })
      }}</span>
    </div>
  </div>
</template>
