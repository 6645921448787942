<script setup lang="ts">
import { dryFilm_um, type Material, solidsOf } from '#core/materials'

/** The figures that a step is reckoned with, each with where it comes from: the product's label, or its class. */
const props = defineProps<{ material: Material }>()
const { span } = useFormat()
const min = (minutes: number) => span(minutes * 60_000)
const rows = computed(() => {
  const m = props.material
  const film: [keyof Material, string, string][] =
    m.wet_um === null
      ? [['spread_g_m2', w('figure.spread'), `${m.spread_g_m2?.[0] ?? 0} g/m²`]]
      : [
          ['wet_um', w('figure.wet'), `${m.wet_um} µm`],
          ['solids', w('figure.solids'), `${Math.round(solidsOf(m) * 100)} %`],
          ['solids', w('figure.dry'), `${Math.round(dryFilm_um(m) * 10) / 10} µm`],
        ]
  const all: [keyof Material, string, string][] = [
    ...film,
    ['density', w('figure.density'), `${m.density} g/ml`],
    ['recoat_min', w('figure.recoat'), min(m.recoat_min[0])],
    ...(m.recoatMax_min === null
      ? []
      : [['recoatMax_min', w('figure.recoatMax'), min(m.recoatMax_min)] as [keyof Material, string, string]]),
    ['handle_min', w('figure.handle'), min(m.handle_min)],
    ['cure_d', w('figure.cure'), `${m.cure_d.join('–')} d`],
    ['minutes_m2', w('figure.pace'), `${m.minutes_m2} min/m²`],
  ]
  return all.map(([field, name, value]) => ({
    name,
    value,
    from: w(props.material.labelled.includes(field) ? 'figure.label' : 'figure.usual'),
    label: props.material.labelled.includes(field),
  }))
})
</script>

<template>
  <FoldOut :title="w('figure.title', { name: material.name })" data-test="figures">
    <dl class="grid grid-cols-[auto_auto_1fr] gap-x-4 gap-y-1 clock">
      <template v-for="r in rows" :key="r.name"
        ><dt>{{ r.name }}</dt>
        <dd class="text-right font-bold">{{ r.value }}</dd>
        <dd class="caption" :class="r.label ? 'text-verdigris!' : ''">{{ r.from }}</dd></template
      >
    </dl>
  </FoldOut>
</template>
