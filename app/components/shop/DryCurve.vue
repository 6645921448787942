<script setup lang="ts">
import { sigmaOf } from '#core/drying'
import { materialOf } from '#core/materials'

/** How long a product dries in this shop, as it was learnt, beside the label and the usual spread; to be put back. */
const props = defineProps<{
  productId: number
  productClass: string
  dries: { early: number; likely: number; safe: number; seen: { product: number; class: number } }
  can: boolean
}>()
const emit = defineEmits<{ changed: [] }>()
const { hours } = useFormat()
const material = computed(() => materialOf(props.productClass))
const Z90 = 1.2816
const [WIDE, HIGH] = [320, 90]
const [LEAST, MOST] = [0.3, 6]
const xOf = (factor: number) => (Math.log(factor / LEAST) / Math.log(MOST / LEAST)) * WIDE
interface Curve {
  mean: number
  sd: number
}
const usual = computed((): Curve => ({ mean: 0, sd: sigmaOf(material.value.base) }))
const own = computed((): Curve => ({
  ...{ mean: Math.log(props.dries.likely), sd: Math.log(props.dries.safe / props.dries.likely) / Z90 },
}))
const POINTS = 80
/** The density of the logarithm, the higher of both as high as the drawing. */
const path = ({ mean, sd }: Curve) => {
  const top = 1 / Math.min(own.value.sd, usual.value.sd)
  const points = Array.from({ length: POINTS + 1 }, (_, i) => {
    const log = Math.log(LEAST) + (i / POINTS) * Math.log(MOST / LEAST)
    const y = Math.exp(-0.5 * ((log - mean) / sd) ** 2) / sd / top
    return `${((i / POINTS) * WIDE).toFixed(1)} ${(HIGH * (1 - 0.95 * y)).toFixed(1)}`
  })
  return `M${points.join('L')}`
}
const times = (factor: number) => hours(material.value.recoat_min[1] * factor)
const says = computed(() =>
  w('store.driesLine', {
    factor: props.dries.likely.toFixed(2),
    n: props.dries.seen.product,
    others: props.dries.seen.class,
  }),
)
async function putBack() {
  const id = props.productId
  if (!(await send('DELETE /api/products/:id/dry-times', { id }))) return
  useNotes().show(w('store.driesUsual'), 'done', async () => {
    if (await send('PUT /api/products/:id/dry-times', { id })) emit('changed')
  })
  emit('changed')
}
</script>

<template>
  <div data-test="dries">
    <svg :viewBox="`0 -4 ${WIDE} ${HIGH + 22}`" class="w-full max-w-md" role="img" :aria-label="says">
      <path :d="path(usual)" fill="none" stroke="var(--color-soft)" stroke-width="1.5" stroke-dasharray="4 3" />
      <path :d="path(own)" fill="none" stroke="var(--color-verdigris)" stroke-width="2.5" />
      <g v-for="f in [0.5, 1, 2, 4]" :key="f">
        <path :d="`M${xOf(f)} ${HIGH}v4`" stroke="var(--color-ink)" />
        <text :x="xOf(f)" :y="HIGH + 15" text-anchor="middle" font-size="11" fill="var(--color-ink)">× {{ f }}</text>
      </g>
      <path :d="`M0 ${HIGH}H${WIDE}`" stroke="var(--color-ink)" />
    </svg>
    <p class="caption">{{ w('store.driesKey') }}</p>
    <p>
      {{
        w('store.driesTimes', {
          label: times(1),
          likely: times(dries.likely),
          early: times(dries.early),
          safe: times(dries.safe),
        })
      }}
    </p>
    <button v-if="can && dries.seen.product" class="act act-quiet mt-2" @click="putBack">
      {{ w('store.driesBack') }}
    </button>
  </div>
</template>
