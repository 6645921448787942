<script setup lang="ts">
import { useI18n } from 'vue-i18n'
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
const { t } = useI18n()
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
  () => `${SPECIES.find(s => s.slug === about.species)?.name ?? about.species}, ${t(`colour.roles.${about.role}`)}`,
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
      >{{ $t('colour.what') }} <input v-model="about.name" class="field" maxlength="120" :placeholder="usualName"
    /></label>
    <div class="grid grid-cols-2 gap-3">
      <label
        >{{ $t('colour.role') }}
        <select v-model="about.role" class="field">
          <option v-for="r in READING_ROLES" :key="r" :value="r">{{ $t(`colour.roles.${r}`) }}</option>
        </select></label
      >
      <label
        >{{ $t('intake.species') }}
        <select v-model="about.species" class="field">
          <option v-for="s in SPECIES" :key="s.slug" :value="s.slug">{{ s.name }}</option>
        </select></label
      >
      <label
        >{{ $t('colour.surface') }}
        <select v-model="about.clearCoat" class="field">
          <option value="">{{ $t('colour.bare') }}</option>
          <option v-for="k in CLEAR_COAT_SLUGS" :key="k" :value="k">{{ $t(`colour.coats.${k}`) }}</option>
        </select></label
      >
      <label
        >{{ $t('colour.history') }}
        <select v-model="about.lightHistory" class="field">
          <option v-for="h in LIGHT_HISTORIES" :key="h" :value="h">{{ $t(`colour.histories.${h}`) }}</option>
        </select></label
      >
    </div>
    <button class="act" :disabled="busy">{{ $t('colour.measure') }}</button>
    <details>
      <summary class="min-h-11 flex items-center underline cursor-pointer">{{ $t('colour.otherWays') }}</summary>
      <div class="grid gap-3 mt-2">
        <div class="grid grid-cols-2 gap-3">
          <label
            >{{ $t('colour.zone') }}
            <select v-model="about.zone" class="field">
              <option value="heartwood">{{ $t('colour.zones.heartwood') }}</option>
              <option value="sapwood">{{ $t('colour.zones.sapwood') }}</option>
            </select></label
          >
          <label
            >{{ $t('colour.gloss') }}
            <select v-model="about.gloss" class="field">
              <option value="excluded">{{ $t('colour.glosses.excluded') }}</option>
              <option value="included">{{ $t('colour.glosses.included') }}</option>
            </select></label
          >
        </div>
        <div class="grid grid-cols-3 gap-3">
          <label v-for="k in ['L', 'a', 'b'] as const" :key="k"
            >{{ k }}* <input v-model.number="lab[k]" type="number" step="any" class="field"
          /></label>
        </div>
        <label
          >{{ $t('colour.labLight') }}
          <select v-model="lab.light" class="field">
            <option v-for="l in LIGHTS" :key="l" :value="l">{{ $t(`colour.lights.${l}`) }}</option>
          </select></label
        >
        <button type="button" class="act act-quiet" @click="type">{{ $t('colour.typeIn') }}</button>
        <label class="act act-quiet"
          >{{ $t('colour.file') }}
          <input type="file" accept=".txt,.csv,.cgats,.it8,text/plain,text/csv" class="sr-only" @change="take"
        /></label>
        <p class="caption">{{ $t('colour.weaker') }}</p>
      </div>
    </details>
  </form>
</template>
