<script setup lang="ts">
import { CLEAR_COAT_SLUGS, LIGHT_HISTORIES, LIGHTS } from '#core/colour'
import { SPECIES } from '#core/wood'
import { READING_ROLES } from '#shared/colour'

/** One touch measures; a file or figures are taken in as well. */
const props = defineProps<{
  pieceId?: number | null
  role?: (typeof READING_ROLES)[number]
  species?: string
  clearCoat?: string | null
  name?: string
}>()
const emit = defineEmits<{ read: [id: number] }>()
const about = reactive({
  name: props.name ?? '',
  role: props.role ?? 'target',
  species: props.species ?? 'oak',
  zone: 'heartwood',
  clearCoat: props.clearCoat ?? '',
  gloss: 'excluded',
  lightHistory: 'fresh',
})
watch(
  () => [props.name, props.role, props.species, props.clearCoat],
  () =>
    Object.assign(about, {
      name: props.name ?? about.name,
      role: props.role ?? about.role,
      species: props.species ?? about.species,
      clearCoat: props.clearCoat === undefined ? about.clearCoat : (props.clearCoat ?? ''),
    }),
)
/** What it is called where no name was given: one touch is enough. */
const usualName = computed(
  () => `${SPECIES.find(s => s.slug === about.species)?.name ?? about.species}, ${w(`colour.roles.${about.role}`)}`,
)
const body = () => ({
  ...about,
  name: about.name || usualName.value,
  clearCoat: about.clearCoat || null,
  pieceId: props.pieceId ?? null,
})
const busy = ref(false)
async function measure() {
  busy.value = true
  const done = await send<{ id: number; lab: number[]; meter: string }>('POST', '/api/readings/measure', body())
  busy.value = false
  if (!done) return
  useNotes().show(`${about.name || usualName.value}: L* ${done.lab.map(v => v.toFixed(1)).join(', ')}`)
  emit('read', done.id)
}
const lab = reactive({ L: 50, a: 10, b: 20, light: 'd65', observer: '10' })
async function type() {
  const done = await send<{ id: number }>('POST', '/api/readings', { ...body(), lab })
  if (done) emit('read', done.id)
}
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const done = await send<{ ids: number[] }>('POST', '/api/readings/import', {
    ...body(),
    name: '',
    text: await file.text(),
  })
  input.value = ''
  if (done) for (const id of done.ids) emit('read', id)
}
</script>

<template>
  <form class="grid gap-3" @submit.prevent="measure">
    <label
      >{{ w('colour.what') }} <input v-model="about.name" class="field" maxlength="120" :placeholder="usualName"
    /></label>
    <div class="grid grid-cols-2 gap-3">
      <label
        >{{ w('colour.role') }}
        <select v-model="about.role" class="field">
          <option v-for="r in READING_ROLES" :key="r" :value="r">{{ w(`colour.roles.${r}`) }}</option>
        </select></label
      >
      <label
        >{{ w('intake.species') }}
        <select v-model="about.species" class="field">
          <option v-for="s in SPECIES" :key="s.slug" :value="s.slug">{{ s.name }}</option>
        </select></label
      >
      <label
        >{{ w('colour.surface') }}
        <select v-model="about.clearCoat" class="field">
          <option value="">{{ w('colour.bare') }}</option>
          <option v-for="k in CLEAR_COAT_SLUGS" :key="k" :value="k">{{ w(`colour.coats.${k}`) }}</option>
        </select></label
      >
      <label
        >{{ w('colour.history') }}
        <select v-model="about.lightHistory" class="field">
          <option v-for="h in LIGHT_HISTORIES" :key="h" :value="h">{{ w(`colour.histories.${h}`) }}</option>
        </select></label
      >
    </div>
    <button class="act" :disabled="busy">{{ w('colour.measure') }}</button>
    <details>
      <summary class="min-h-11 flex items-center underline cursor-pointer">{{ w('colour.otherWays') }}</summary>
      <div class="grid gap-3 mt-2">
        <div class="grid grid-cols-2 gap-3">
          <label
            >{{ w('colour.zone') }}
            <select v-model="about.zone" class="field">
              <option value="heartwood">{{ w('colour.zones.heartwood') }}</option>
              <option value="sapwood">{{ w('colour.zones.sapwood') }}</option>
            </select></label
          >
          <label
            >{{ w('colour.gloss') }}
            <select v-model="about.gloss" class="field">
              <option value="excluded">{{ w('colour.glosses.excluded') }}</option>
              <option value="included">{{ w('colour.glosses.included') }}</option>
            </select></label
          >
        </div>
        <div class="grid grid-cols-3 gap-3">
          <label v-for="k in ['L', 'a', 'b'] as const" :key="k"
            >{{ k }}* <input v-model.number="lab[k]" type="number" step="any" class="field"
          /></label>
        </div>
        <label
          >{{ w('colour.labLight') }}
          <select v-model="lab.light" class="field">
            <option v-for="l in LIGHTS" :key="l" :value="l">{{ w(`colour.lights.${l}`) }}</option>
          </select></label
        >
        <button type="button" class="act act-quiet" @click="type">{{ w('colour.typeIn') }}</button>
        <label class="act act-quiet"
          >{{ w('colour.file') }}
          <input type="file" accept=".txt,.csv,.cgats,.it8,text/plain,text/csv" class="sr-only" @change="take"
        /></label>
        <p class="caption">{{ w('colour.weaker') }}</p>
      </div>
    </details>
  </form>
</template>
