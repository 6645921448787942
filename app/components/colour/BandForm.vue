<script setup lang="ts">
import { APPLICATORS, type Applicator, type ClearCoat, type LightHistory, type Wipe, WIPES } from '#core/colour'
import { materialOf, MATERIALS } from '#core/materials'

/** A band of the panel with everything that makes it this colour and no other. */
const props = defineProps<{ pieceId: number; page: PanelPage; line: PanelLine; read: number }>()
const emit = defineEmits<{ added: [] }>()
const CONDITIONERS = ['none', ...MATERIALS.filter(m => m.role === 'conditioner').map(m => m.slug)]
const form = reactive({
  readingId: 0,
  batchId: props.page.batches[0]?.id ?? 0,
  coats: 1,
  grit: 180 as number | null,
  scale: 'P' as 'P' | 'CAMI',
  conditioner: 'none',
  applicator: 'cloth' as Applicator,
  dwell_min: null as number | null,
  wipe: 'normal' as Wipe,
  temperature_C: 20 as number | null,
  lightHistory: 'fresh' as LightHistory,
  photograph: null as string | null,
  note: '',
})
watch(
  [() => props.line.key, () => props.read],
  () => {
    form.readingId = props.read
    form.coats = props.line.coats
  },
  { immediate: true },
)
const bands = computed(() => props.page.readings.filter(r => r.role === 'band'))
const number = (v: number | null | '') => (v === '' ? null : v)
async function add() {
  const body = {
    ...form,
    stepKey: props.line.key,
    readingId: form.readingId || null,
    recipeId: props.page.recipes[0]?.id ?? null,
    batchId: form.batchId || null,
    clearCoat: props.line.coat as ClearCoat | null,
    grit: number(form.grit),
    dwell_min: number(form.dwell_min),
    temperature_C: number(form.temperature_C),
  }
  if (await send('POST /api/pieces/:id/bands', { id: props.pieceId, body })) emit('added')
}
</script>

<template>
  <form class="grid sm:grid-cols-4 gap-3 items-end" @submit.prevent="add">
    <FindField
      v-model="form.readingId"
      :label="w('panel.reading')"
      :options="[{ value: 0, label: w('panel.later') }, ...namedOptions(bands)]"
      class="sm:col-span-2"
    />
    <FindField
      v-model="form.batchId"
      :label="w('panel.fromPot')"
      :options="[
        { value: 0, label: w('panel.byRecipe') },
        ...page.batches.map(b => ({ value: b.id, label: `${b.id} ${b.name}` })),
      ]"
      class="sm:col-span-2"
    />
    <label
      >{{ w('panel.grit') }}
      <span class="flex gap-1"
        ><input v-model.number="form.grit" type="number" class="field" /><ChoiceField
          v-model="form.scale"
          :label="w('panel.scale')"
          label-hidden
          :options="optionsOf(['P', 'CAMI'])"
          class="w-24" /></span
    ></label>
    <label
      >{{ w('colour.colourCoats') }} <input v-model.number="form.coats" type="number" min="0" max="12" class="field"
    /></label>
    <ChoiceField
      v-model="form.conditioner"
      :label="w('route.conditioner')"
      :options="optionsOf(CONDITIONERS, k => (k === 'none' ? w('panel.none') : materialOf(k).name))"
    />
    <ChoiceField
      v-model="form.applicator"
      :label="w('panel.applicator')"
      :options="optionsOf(APPLICATORS, k => w(`panel.applicators.${k}`))"
    />
    <label
      >{{ w('panel.dwell') }} <input v-model.number="form.dwell_min" type="number" min="0" step="any" class="field"
    /></label>
    <ChoiceField
      v-model="form.wipe"
      :label="w('colour.wipe')"
      :options="optionsOf(WIPES, k => w(`colour.wipes.${k}`))"
    />
    <label
      >{{ w('panel.temperature') }} <input v-model.number="form.temperature_C" type="number" step="any" class="field"
    /></label>
    <ChoiceField
      v-model="form.photograph"
      :label="w('panel.photograph')"
      :options="[
        { value: null, label: w('panel.none') },
        ...page.photographs.map((p, i) => ({
          value: p,
          label: w('panel.photographN', { n: page.photographs.length - i }),
        })),
      ]"
    />
    <TextField v-model="form.note" :label="w('exam.note')" />
    <button class="act">{{ w('panel.add') }}</button>
  </form>
</template>
