<script setup lang="ts">
import type { Step } from '#core/acts'
import { dryFilm_um, type FigureSource, type Material, solidsOf, sourceOf } from '#core/materials'
import type { Facts } from '#core/piece'

/**
 * The figures that a step is reckoned with, each with where it comes from: the product's label, the shop's record,
 * what is usual for its class, a default of ours, or a hand.
 */
const props = defineProps<{
  step: Pick<Step, 'kind' | 'attended_min' | 'amount_ml' | 'typed'>
  material: Material | null
  pace: Facts['pace'] | null
}>()
const { span, amount } = useFormat()
const min = (minutes: number) => span(minutes * 60_000)
type Source = FigureSource | 'patch' | 'hand' | 'workedOut'
interface Row {
  name: string
  value: string
  from: Source
}
function ofProduct(m: Material): Row[] {
  const row = (figure: keyof Material, name: string, value: string): Row => ({ name, value, from: sourceOf(m, figure) })
  const film =
    m.wet_um === null
      ? [row('spread_g_m2', w('figure.spread'), `${m.spread_g_m2?.[0] ?? 0} g/m²`)]
      : [
          row('wet_um', w('figure.wet'), `${m.wet_um} µm`),
          row('solids', w('figure.solids'), `${Math.round(solidsOf(m) * 100)} %`),
          row('solids', w('figure.dry'), `${Math.round(dryFilm_um(m) * 10) / 10} µm`),
        ]
  return [
    ...film,
    row('density', w('figure.density'), `${m.density} g/ml`),
    row('recoat_min', w('figure.recoat'), min(m.recoat_min[0])),
    ...(m.recoatMax_min === null ? [] : [row('recoatMax_min', w('figure.recoatMax'), min(m.recoatMax_min))]),
    row('handle_min', w('figure.handle'), min(m.handle_min)),
    row('cure_d', w('figure.cure'), `${m.cure_d.join('–')} d`),
    row('minutes_m2', w('figure.pace'), `${m.minutes_m2} min/m²`),
  ]
}
/** Timed patches on this piece outrank the default pace of what was tried. */
const TRIED = { scrape: 'stripper', sand: 'sanding' } as const satisfies { [K in Step['kind']]?: keyof Facts['pace'] }
function minutesFrom({ kind, typed }: typeof props.step): Source {
  if (typed.includes('attended_min')) return 'hand'
  return kind in TRIED && props.pace?.[TRIED[kind as keyof typeof TRIED]] != null ? 'patch' : 'default'
}
const rows = computed((): Row[] => [
  { name: w('figure.minutes'), value: min(props.step.attended_min), from: minutesFrom(props.step) },
  ...(props.step.amount_ml === null
    ? []
    : [
        {
          name: w('figure.amount'),
          value: amount(props.step.amount_ml),
          from: props.step.typed.includes('amount_ml') ? ('hand' as const) : ('workedOut' as const),
        },
      ]),
  ...(props.material ? ofProduct(props.material) : []),
])
const OWN: readonly Source[] = ['label', 'patch', 'hand']
</script>

<template>
  <FoldOut :title="material ? w('figure.title', { name: material.name }) : w('figure.plain')" data-test="figures">
    <dl class="grid grid-cols-[auto_auto_1fr] gap-x-4 gap-y-1 clock">
      <template v-for="r in rows" :key="r.name"
        ><dt>{{ r.name }}</dt>
        <dd class="text-right font-bold">{{ r.value }}</dd>
        <dd class="caption" :class="OWN.includes(r.from) ? 'text-verdigris!' : ''">
          {{ w(`figure.from.${r.from}`) }}
        </dd></template
      >
    </dl>
  </FoldOut>
</template>
