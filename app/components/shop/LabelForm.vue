<script setup lang="ts">
import { type LabelFigures, materialOf, solidsOf } from '#core/materials'

/** What a product's label says, beside what its class usually says. A blank follows the class. */
const props = defineProps<{
  productId: number
  productClass: string
  label: { id: number; figures: LabelFigures }
  can: boolean
}>()
const emit = defineEmits<{ saved: [] }>()
const { degrees } = useFormat()
const material = computed(() => materialOf(props.productClass))
type NumberFigure = {
  [F in keyof LabelFigures]: LabelFigures[F] extends number | undefined ? F : never
}[keyof LabelFigures]
type WordFigure = Exclude<keyof LabelFigures, NumberFigure>
/** What the class usually says of each figure, where it says something. */
const usual = computed((): Partial<Record<NonNullable<NumberFigure>, number | null>> => {
  const m = material.value
  return {
    solids_pct: Math.round(solidsOf(m) * 100) || null,
    wet_um: m.wet_um,
    density_g_ml: m.density,
    recoat_min: m.recoat_min[0],
    recoatMax_min: m.recoatMax_min,
    handle_min: m.handle_min,
    cure_d: m.cure_d[0],
    wipe_min: m.wipe_min,
    potLife_min: m.potLife_min?.[0] ?? null,
    airMax_C: m.air?.limitMax_C ?? null,
    between_P: m.betweenCoats_P,
    coats: m.coats[0],
    voc_g_l: m.voc_g_l,
  }
})
const NUMBERS = [
  ...(['coats', 'solids_pct', 'wet_um', 'spread_m2_l', 'density_g_ml', 'between_P'] as const),
  ...(['recoat_min', 'recoatMax_min', 'handle_min', 'cure_d', 'wipe_min', 'potLife_min'] as const),
  ...(['airMin_C', 'airMax_C', 'rhMax_pct', 'reduceMost_pct', 'voc_g_l', 'flash_C'] as const),
  ...(['keepsClosed_mo', 'keepsOpened_mo'] as const),
]
const WORDS = ['ratio', 'reducer', 'sheen', 'safetySheet'] as const satisfies readonly WordFigure[]
const figures = ref<Record<string, number | string | null>>({})
watch(
  () => props.label.id,
  () => {
    figures.value = { ...(props.label.figures as Record<string, number | string>) }
  },
  { immediate: true },
)
const { errors, busy, submit } = useSubmit('POST /api/products/:id/label', () => ({
  was: props.label.id,
  figures: Object.fromEntries(Object.entries(figures.value).filter(([, v]) => v !== null && v !== '')),
}))
const changed = computed(() => {
  const now = Object.entries(figures.value).filter(([, v]) => v !== null && v !== '')
  return JSON.stringify(now.sort()) !== JSON.stringify(Object.entries(props.label.figures).sort())
})
async function save() {
  const done = await submit({ id: props.productId })
  if (!done) return
  useNotes().show(
    done.touched.length
      ? w('label.touched', { pieces: done.touched.map(p => `${p.id} ${p.name}`).join(', ') })
      : w('label.saved'),
  )
  emit('saved')
}
const numberIn = (figure: string) => {
  const value = figures.value[figure]
  return typeof value === 'number' ? value : null
}
const says = (figure: (typeof NUMBERS)[number]) => {
  const n = usual.value[figure]
  const said = figure === 'airMax_C' && typeof n === 'number' ? degrees(n, 0) : n
  return `${w(`label.${figure}`)}${said === null || said === undefined ? '' : ` · ${w('label.usual', { n: said })}`}`
}
const TemperatureField = resolveComponent('TemperatureField')
const NumberField = resolveComponent('NumberField')
</script>

<template>
  <form class="grid gap-3 pb-4" data-test="label-form" @submit.prevent="save">
    <p class="caption">{{ w('label.why') }}</p>
    <div class="grid sm:grid-cols-2 lg:grid-cols-3 gap-3">
      <component
        :is="f.endsWith('_C') ? TemperatureField : NumberField"
        v-for="f in NUMBERS"
        :key="f"
        :model-value="numberIn(f)"
        :label="says(f)"
        step="any"
        :error="errors[`figures.${f}`]"
        @update:model-value="figures[f] = $event ?? null"
      />
      <TextField
        v-for="f in WORDS"
        :key="f"
        :model-value="String(figures[f] ?? '')"
        :label="w(`label.${f}`)"
        :error="errors[`figures.${f}`]"
        @update:model-value="figures[f] = $event ?? ''"
      />
    </div>
    <button v-if="can" class="act justify-self-start" :disabled="busy || !changed">{{ w('label.save') }}</button>
  </form>
</template>
