<script setup lang="ts">
import { APPLICATORS, LEFT_ON } from '#core/colour'
import { MATERIALS } from '#core/materials'

/** A band of the panel with everything that makes it this colour and no other. */
const props = defineProps<{ pieceId: number; page: PanelPage; line: PanelLine; read: number }>()
const emit = defineEmits<{ added: [] }>()
const CONDITIONERS = ['none', ...MATERIALS.filter(m => m.role === 'conditioner').map(m => m.slug)]
const form = reactive({
  readingId: 0,
  batchId: props.page.batches[0]?.id ?? 0,
  coats: 1,
  grit: 180 as number | null,
  scale: 'P',
  conditioner: 'none',
  applicator: 'cloth',
  dwell_min: null as number | null,
  wipe: 'normal',
  temperature_C: 20 as number | null,
  lightHistory: 'fresh',
  photograph: '',
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
    photograph: form.photograph || null,
    clearCoat: props.line.coat,
    grit: number(form.grit),
    dwell_min: number(form.dwell_min),
    temperature_C: number(form.temperature_C),
  }
  if (await send('POST', `/api/pieces/${props.pieceId}/bands`, body)) emit('added')
}
</script>

<template>
  <form class="grid sm:grid-cols-4 gap-3 items-end" @submit.prevent="add">
    <label class="sm:col-span-2"
      >{{ w('panel.reading') }}
      <select v-model.number="form.readingId" class="field">
        <option :value="0">{{ w('panel.later') }}</option>
        <option v-for="r in bands" :key="r.id" :value="r.id">{{ r.name }}</option>
      </select></label
    >
    <label class="sm:col-span-2"
      >{{ w('panel.fromPot') }}
      <select v-model.number="form.batchId" class="field">
        <option :value="0">{{ w('panel.byRecipe') }}</option>
        <option v-for="b in page.batches" :key="b.id" :value="b.id">{{ b.id }} {{ b.name }}</option>
      </select></label
    >
    <label
      >{{ w('panel.grit') }}
      <span class="flex gap-1"
        ><input v-model.number="form.grit" type="number" class="field" /><select
          v-model="form.scale"
          class="field !w-24"
          :aria-label="w('panel.scale')"
        >
          <option>P</option>
          <option>CAMI</option>
        </select></span
      ></label
    >
    <label
      >{{ w('colour.colourCoats') }} <input v-model.number="form.coats" type="number" min="0" max="12" class="field"
    /></label>
    <label
      >{{ w('route.conditioner') }}
      <select v-model="form.conditioner" class="field">
        <option v-for="k in CONDITIONERS" :key="k" :value="k">
          {{ k === 'none' ? w('panel.none') : MATERIALS.find(m => m.slug === k)?.name }}
        </option>
      </select></label
    >
    <label
      >{{ w('panel.applicator') }}
      <select v-model="form.applicator" class="field">
        <option v-for="k in APPLICATORS" :key="k" :value="k">{{ w(`panel.applicators.${k}`) }}</option>
      </select></label
    >
    <label
      >{{ w('panel.dwell') }} <input v-model.number="form.dwell_min" type="number" min="0" step="any" class="field"
    /></label>
    <label
      >{{ w('colour.wipe') }}
      <select v-model="form.wipe" class="field">
        <option v-for="(_, wipe) in LEFT_ON" :key="wipe" :value="wipe">{{ w(`colour.wipes.${wipe}`) }}</option>
      </select></label
    >
    <label
      >{{ w('panel.temperature') }} <input v-model.number="form.temperature_C" type="number" step="any" class="field"
    /></label>
    <label
      >{{ w('panel.photograph') }}
      <select v-model="form.photograph" class="field">
        <option value="">{{ w('panel.none') }}</option>
        <option v-for="(p, i) in page.photographs" :key="p" :value="p">
          {{ w('panel.photographN', { n: page.photographs.length - i }) }}
        </option>
      </select></label
    >
    <TextField v-model="form.note" :label="w('exam.note')" />
    <button class="act">{{ w('panel.add') }}</button>
  </form>
</template>
