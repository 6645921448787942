<script setup lang="ts">
import { APPLICATORS, type ClearCoat, WIPES } from '#core/colour'
import { materialOf, MATERIALS } from '#core/materials'

/** A band of the panel with everything that makes it this colour and no other. */
const props = defineProps<{ pieceId: number; page: PanelPage; line: PanelLine; read: number }>()
const emit = defineEmits<{ added: [] }>()
const CONDITIONERS = ['none', ...MATERIALS.filter(m => m.role === 'conditioner').map(m => m.slug)]
const {
  draft: form,
  errors,
  busy,
  submit,
} = useForm('POST /api/pieces/:id/bands', () => ({
  stepKey: props.line.key,
  readingId: null as number | null,
  recipeId: props.page.recipes[0]?.id ?? null,
  clearCoat: props.line.coat as ClearCoat | null,
  batchId: props.page.batches[0]?.id ?? null,
  coats: 1,
  grit: 180,
  scale: 'P' as const,
  conditioner: 'none',
  applicator: 'cloth' as const,
  dwell_min: null,
  wipe: 'normal' as const,
  temperature_C: 20,
  lightHistory: 'fresh' as const,
  photograph: null,
  note: '',
}))
watch(
  [() => props.line.key, () => props.read],
  () => {
    Object.assign(form.value, {
      stepKey: props.line.key,
      clearCoat: props.line.coat,
      readingId: props.read || null,
      coats: props.line.coats,
    })
  },
  { immediate: true },
)
const bands = computed(() => props.page.readings.filter(r => r.role === 'band'))
async function add() {
  if (await submit({ id: props.pieceId })) emit('added')
}
</script>

<template>
  <form class="grid sm:grid-cols-4 gap-3 items-end" @submit.prevent="add">
    <FindField
      v-model="form.readingId"
      :label="w('panel.reading')"
      :options="[{ value: null, label: w('panel.later') }, ...namedOptions(bands)]"
      class="sm:col-span-2"
    />
    <FindField
      v-model="form.batchId"
      :label="w('panel.fromPot')"
      :options="[
        { value: null, label: w('panel.byRecipe') },
        ...page.batches.map(b => ({ value: b.id, label: `${b.id} ${b.name}` })),
      ]"
      class="sm:col-span-2"
    />
    <div class="flex gap-1 items-end">
      <NumberField v-model="form.grit" :label="w('panel.grit')" :error="errors.grit" /><ChoiceField
        v-model="form.scale"
        :label="w('panel.scale')"
        label-hidden
        :options="optionsOf(['P', 'CAMI'])"
        class="w-24"
      />
    </div>
    <NumberField v-model="form.coats" :label="w('colour.colourCoats')" :min="0" :max="12" :error="errors.coats" />
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
    <NumberField v-model="form.dwell_min" :label="w('panel.dwell')" :min="0" step="any" :error="errors.dwell_min" />
    <ChoiceField
      v-model="form.wipe"
      :label="w('colour.wipe')"
      :options="optionsOf(WIPES, k => w(`colour.wipes.${k}`))"
    />
    <TemperatureField v-model="form.temperature_C" :label="w('panel.temperature')" :error="errors.temperature_C" />
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
    <TextField v-model="form.note" :label="w('exam.note')" :error="errors.note" />
    <button class="act" :disabled="busy">{{ w('panel.add') }}</button>
  </form>
</template>
