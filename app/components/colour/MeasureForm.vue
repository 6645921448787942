<script setup lang="ts">
import { CLEAR_COAT_SLUGS, type ClearCoat, type Light, LIGHT_HISTORIES, type LightHistory, LIGHTS } from '#core/colour'
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
  zone: 'heartwood' as 'heartwood' | 'sapwood',
  clearCoat: props.clearCoat ?? '',
  gloss: 'excluded' as 'excluded' | 'included',
  lightHistory: 'fresh' as LightHistory,
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
  clearCoat: (about.clearCoat || null) as ClearCoat | null,
  pieceId: props.pieceId ?? null,
})
const { errors, busy, submit } = useSubmit('POST /api/readings/measure', body)
async function measure() {
  const done = await submit({})
  if (!done) return
  useNotes().show(`${about.name || usualName.value}: L* ${done.lab.map(v => v.toFixed(1)).join(', ')}`)
  emit('read', done.id)
}
const lab = reactive({
  L: 50 as number | null,
  a: 10 as number | null,
  b: 20 as number | null,
  light: 'd65' as Light,
  observer: '10' as '2' | '10',
})
const typing = useSubmit('POST /api/readings', () => ({ ...body(), lab }))
async function type() {
  const done = await typing.submit({})
  if (done) emit('read', done.id)
}
async function take(event: Event) {
  const text = await chosenText(event)
  if (text === undefined) return
  const done = await send('POST /api/readings/import', { body: { ...body(), name: '', text } })
  if (done) for (const id of done.ids) emit('read', id)
}
</script>

<template>
  <form class="grid gap-3" @submit.prevent="measure">
    <label
      >{{ w('colour.what') }} <input v-model="about.name" class="field" maxlength="120" :placeholder="usualName"
    /></label>
    <div class="grid grid-cols-2 gap-3">
      <ChoiceField
        v-model="about.role"
        :label="w('colour.role')"
        :options="optionsOf(READING_ROLES, r => w(`colour.roles.${r}`))"
      />
      <FindField
        v-model="about.species"
        :label="w('intake.species')"
        :options="namedOptions(SPECIES)"
        :error="errors.species"
      />
      <ChoiceField
        v-model="about.clearCoat"
        :label="w('colour.surface')"
        :options="[{ value: '', label: w('colour.bare') }, ...optionsOf(CLEAR_COAT_SLUGS, k => w(`colour.coats.${k}`))]"
      />
      <ChoiceField
        v-model="about.lightHistory"
        :label="w('colour.history')"
        :options="optionsOf(LIGHT_HISTORIES, h => w(`colour.histories.${h}`))"
      />
    </div>
    <button class="act" :disabled="busy">{{ w('colour.measure') }}</button>
    <FoldOut :title="w('colour.otherWays')">
      <div class="grid gap-3 mt-2">
        <div class="grid grid-cols-2 gap-3">
          <ChoiceField
            v-model="about.zone"
            :label="w('colour.zone')"
            :options="[
              { value: 'heartwood', label: w('colour.zones.heartwood') },
              { value: 'sapwood', label: w('colour.zones.sapwood') },
            ]"
          />
          <ChoiceField
            v-model="about.gloss"
            :label="w('colour.gloss')"
            :options="[
              { value: 'excluded', label: w('colour.glosses.excluded') },
              { value: 'included', label: w('colour.glosses.included') },
            ]"
          />
        </div>
        <div class="grid grid-cols-3 gap-3">
          <NumberField
            v-for="k in ['L', 'a', 'b'] as const"
            :key="k"
            v-model="lab[k]"
            :label="`${k}*`"
            step="any"
            :error="typing.errors.value[`lab.${k}`]"
          />
        </div>
        <ChoiceField
          v-model="lab.light"
          :label="w('colour.labLight')"
          :options="optionsOf(LIGHTS, l => w(`colour.lights.${l}`))"
        />
        <button type="button" class="act act-quiet" @click="type">{{ w('colour.typeIn') }}</button>
        <label class="act act-quiet"
          >{{ w('colour.file') }}
          <input type="file" accept=".txt,.csv,.cgats,.it8,text/plain,text/csv" class="sr-only" @change="take"
        /></label>
        <p class="caption">{{ w('colour.weaker') }}</p>
      </div>
    </FoldOut>
  </form>
</template>
