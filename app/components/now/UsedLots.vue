<script setup lang="ts">
/**
 * What was used, from which pots and lots. A pot that was mixed for this piece comes first, then lots of the product
 * that the plan names; where it names none, or there are several of its class, nobody's lot is chosen for them.
 */
export interface Used {
  /** 'pot:3', 'lot:12'; null: nothing is booked */
  from: string | null
  /** g from a pot, ml from a lot */
  amount: number | null
  word: string
}
const props = defineProps<{
  step: {
    pieceId: number
    product?: string | null
    productId?: number | null
    amount_ml?: number | null
    recipe?: string | null
  }
}>()
const uses = defineModel<Used[]>({ required: true })
const store = ref<AnswerOf<'GET /api/store'> | null>(null)
const pots = ref<AnswerOf<'GET /api/batches'>>([])
const { amount: inWords, day } = useFormat()
const MOST = 5
/** From this share more or less than planned on, a word why is offered (shop default). */
const OFF = 0.25
const rank = (l: { product_id: number; class: string; kept_for: number | null }) => {
  if (l.kept_for !== null && l.kept_for !== props.step.pieceId) return 3
  if (l.product_id === props.step.productId) return 0
  return l.class === props.step.product ? 1 : 2
}
const lots = computed(() =>
  (store.value?.products ?? [])
    .filter(p => p.unit === 'ml')
    .flatMap(p => p.lots.map(l => ({ ...l, name: p.name, class: p.class })))
    .sort((a, b) => rank(a) - rank(b)),
)
const mixed = computed(() => pots.value.filter(p => p.left_g !== null && p.left_g > 0))
/** Mixed by the step's recipe, or for this piece from the product that the step takes. */
const isOurs = (p: (typeof pots.value)[number]) =>
  (Boolean(props.step.recipe) && p.name === props.step.recipe) ||
  (p.piece_id === props.step.pieceId && p.classes.includes(props.step.product ?? ''))
const lotOf = (u: Used) => lots.value.find(l => `lot:${l.id}` === u.from)
const potOf = (u: Used) => mixed.value.find(p => `pot:${p.id}` === u.from)
const options = computed(() => [
  { value: null, label: w('bench.noLot') },
  ...mixed.value
    .toSorted((a, b) => Number(isOurs(b)) - Number(isOurs(a)))
    .map(p => ({
      value: `pot:${p.id}`,
      label: w('bench.pot', { id: p.id, name: p.name, left: Math.round(p.left_g ?? 0) }),
    })),
  ...lots.value.map(l => ({ value: `lot:${l.id}`, label: `${l.name}, ${l.code}: ${Math.round(l.left_amount)} ml` })),
])
/** More than there is by the book: how much there is. */
function short(u: Used): string | null {
  const [lot, pot, amount] = [lotOf(u), potOf(u), u.amount ?? 0]
  if (lot && amount > lot.left_amount) return `${Math.round(lot.left_amount)} ml`
  return pot && amount > pot.left_g! ? `${Math.round(pot.left_g!)} g` : null
}
const otherKind = (u: Used) => {
  const lot = lotOf(u)
  return lot !== undefined && Boolean(props.step.product) && lot.class !== props.step.product
}
/** What a lot is against the plan: its own product, another of its class, another class. */
const against = (u: Used) => {
  const lot = lotOf(u)
  if (!lot || rank(lot) === 0) return null
  if (rank(lot) === 3) return w('lot.keptForOther', { code: lot.code, id: lot.kept_for! })
  if (otherKind(u)) return w('bench.otherClass', { name: lot.name })
  return props.step.productId ? w('bench.otherProduct', { name: lot.name }) : null
}
/** A can that is over its time, or has a skin. */
const aged = (u: Used) => {
  const lot = lotOf(u)
  if (lot?.age === 'over') return w('lot.ageAtUse', { code: lot.code, day: day(lot.until!) })
  return lot?.skinned_on ? w('lot.skinAtUse', { code: lot.code }) : null
}
/** In ml, also what comes from a pot. */
const ml = (u: Used) => (u.from === null ? 0 : (u.amount ?? 0) / (potOf(u)?.density ?? 1))
const total = computed(() => uses.value.reduce((sum, u) => sum + ml(u), 0))
const isOff = computed(() => {
  const planned = props.step.amount_ml ?? 0
  return total.value > 0 && planned > 0 && Math.abs(total.value - planned) > OFF * planned
})
const wants = (u: Used, i: number) =>
  short(u) !== null || against(u) !== null || (isOff.value && i === 0 && u.from !== null)
/** What is likely to be the reason. */
const reasons = (u: Used) => [
  ...(short(u) === null ? [] : (['held-more'] as const)),
  ...(against(u) === null ? [] : (['none-left', 'suits'] as const)),
  ...(isOff.value && total.value < (props.step.amount_ml ?? 0) ? (['less'] as const) : (['thirsty', 'spilt'] as const)),
]
const unsaid = computed(() =>
  uses.value.some(u => (u.amount ?? 0) < 0 || ((short(u) !== null || otherKind(u)) && !u.word.trim())),
)
type Taken = { lotId: number; amountMl: number; word: string } | { batchId: number; amountG: number; word: string }
/** As the bench takes it. */
const taken = computed(() =>
  uses.value.flatMap(({ from, amount, word }): Taken[] => {
    const [kind, id] = (from ?? '').split(':')
    if (!amount || amount <= 0) return []
    if (kind === 'lot') return [{ lotId: Number(id), amountMl: amount, word }]
    return kind === 'pot' ? [{ batchId: Number(id), amountG: amount, word }] : []
  }),
)
defineExpose({ unsaid, taken })
const planned = (u: Used) => Math.ceil((props.step.amount_ml ?? 0) * (potOf(u)?.density ?? 1))
/** A pot is weighed, a lot measured: what was planned is offered in its unit. */
function choose(u: Used, from: string | null) {
  const before = planned(u)
  u.from = from
  if (u.amount === before) u.amount = planned(u)
}
const add = () => uses.value.push({ from: null, amount: null, word: '' })
onMounted(async () => {
  const use: Used = { from: null, amount: Math.ceil(props.step.amount_ml ?? 0), word: '' }
  uses.value = [use]
  ;[store.value, pots.value] = await Promise.all([call('GET /api/store'), call('GET /api/batches')])
  const ours = mixed.value.find(isOurs)
  const own = lots.value.filter(l => l.left_amount > 0 && rank(l) === 0)
  const ofClass = lots.value.filter(l => l.left_amount > 0 && rank(l) <= 1)
  const one = new Set(ofClass.map(l => l.product_id)).size === 1
  const lot = own[0]?.id ?? (one ? ofClass[0]!.id : null)
  const offered = lot === null ? null : `lot:${lot}`
  choose(uses.value[0]!, ours ? `pot:${ours.id}` : offered)
})
</script>

<template>
  <div class="mt-4 grid gap-3" data-test="used">
    <div v-for="(use, i) in uses" :key="i" class="grid grid-cols-[minmax(0,1fr)_7rem] gap-3 items-end">
      <FindField
        :model-value="use.from"
        :label="w('bench.lot')"
        :options="options"
        @update:model-value="choose(use, $event)"
      />
      <NumberField
        v-model="use.amount"
        :label="w(potOf(use) ? 'bench.usedG' : 'bench.used')"
        :min="0"
        :max="100_000"
        step="any"
      />
      <p v-if="aged(use)" class="verdict verdict-warn col-span-2" data-test="aged">{{ aged(use) }}</p>
      <p v-if="against(use)" class="verdict verdict-warn col-span-2">{{ against(use) }}</p>
      <div v-if="wants(use, i)" class="col-span-2" data-test="why">
        <label
          >{{ short(use) ? w('bench.short', { left: short(use)! }) : w('bench.why') }}
          <input v-model="use.word" class="field" maxlength="300"
        /></label>
        <span class="flex flex-wrap gap-2 mt-2">
          <button
            v-for="why in reasons(use)"
            :key="why"
            type="button"
            class="chip"
            @click="use.word = w(`bench.because.${why}`)"
          >
            {{ w(`bench.because.${why}`) }}
          </button>
        </span>
      </div>
    </div>
    <div class="flex flex-wrap gap-4 items-center">
      <button v-if="uses.length < MOST" class="underline min-h-11" @click="add">{{ w('bench.anotherLot') }}</button>
      <span v-if="step.amount_ml" class="caption">{{
        w('bench.plannedUsed', { planned: inWords(Math.ceil(step.amount_ml)), used: inWords(Math.round(total)) })
      }}</span>
    </div>
  </div>
</template>
