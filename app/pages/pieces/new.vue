<script setup lang="ts">
import { PERIODS, USES } from '#core/piece'
import { shrunk } from '~/offline/picture'

const {
  draft: state,
  errors,
  busy,
  submitOrKeep,
  reset,
} = useForm('POST /api/pieces', () => ({
  name: '',
  note: '',
  client: { id: null, name: '', email: '', phone: '' },
  use: 'daily',
  tone: 'same',
  sheen: 'satin',
  age: 'keep',
  dueOn: null,
  period: 'unknown',
  refinished: 'unknown',
  keepPatina: false,
  rustic: false,
  lead: undefined as never,
  parts: firstParts(),
}))
/** Taken in at the client's with a name and a photograph; its faces are measured in the shop. */
const later = ref(false)
/** What was typed outlives the page, on this device, until it is taken in or begun anew. */
const kept = useTakeInDraft()
const blank = JSON.stringify(state.value)
const isTyped = computed(() => JSON.stringify(state.value) !== blank)
onMounted(() => {
  try {
    const before = kept.value === null ? null : (JSON.parse(kept.value) as typeof state.value)
    if (before) state.value = { ...state.value, ...before }
  } catch {
    kept.value = null
  }
})
watchDebounced(state, now => (kept.value = isTyped.value ? JSON.stringify(now) : null), { deep: true, debounce: 300 })
function anew() {
  reset()
  picture.value = null
  kept.value = null
  later.value = false
}
/** A photograph first: it goes to the piece when there is one. */
const picture = ref<File | null>(null)
const shown = useObjectUrl(picture)
async function save() {
  const shrunken = picture.value ? await shrunk(picture.value) : null
  const says = w('waiting.takeIn', { name: state.value.name })
  const doing = { says, pieceId: null, stepId: null, happened_ms: useClock().now, picture: shrunken?.picture ?? null }
  const made = await submitOrKeep(later.value ? { parts: [] } : {}, doing)
  if (!made) return
  kept.value = null
  if ('kept' in made) {
    useNotes().show(w('waiting.kept', { says }))
    return navigateTo('/pieces')
  }
  if (shrunken)
    await send('POST /api/pieces/:id/photographs', {
      ...{ id: made.done.id, query: { taken: shrunken.taken }, body: pictureBody(shrunken.picture) },
    })
  await navigateTo(`/pieces/${made.done.id}`)
}
const choices = {
  use: USES,
  tone: ['lighter', 'same', 'darker', 'match'],
  sheen: ['matt', 'satin', 'semi-gloss', 'gloss'],
  age: ['keep', 'new'],
  refinished: ['yes', 'no', 'unknown'],
} as const
</script>

<template>
  <form class="max-w-5xl" novalidate @submit.prevent="save">
    <div class="flex flex-wrap items-center gap-4">
      <h1 class="grow">{{ w('intake.title') }}</h1>
      <button v-if="isTyped" type="button" class="underline min-h-11" @click="anew">{{ w('intake.anew') }}</button>
    </div>
    <PictureField v-model="picture" class="mt-2" :label="w('intake.picture')" />
    <img v-if="shown" :src="shown" class="mt-2 max-h-60" :alt="w('intake.pictureShown')" />
    <div class="grid sm:grid-cols-2 gap-4 mt-4">
      <TextField v-model="state.name" :label="w('intake.name')" :error="errors.name" required />
      <TextField v-model="state.client.name" :label="w('intake.client')" :error="errors['client.name']" required />
      <KnownClients v-model="state.client" class="sm:col-span-2" />
      <TextField v-model="state.client.email" :label="w('intake.email')" type="email" :error="errors['client.email']" />
      <TextField v-model="state.client.phone" :label="w('intake.phone')" :error="errors['client.phone']" />
    </div>
    <fieldset class="row mt-6">
      <legend class="sr-only">{{ w('intake.wish') }}</legend>
      <div class="grid sm:grid-cols-3 gap-4">
        <ChoiceField
          v-for="(list, key) in choices"
          :key="key"
          v-model="state[key]"
          :label="w(`intake.${key}`)"
          :options="optionsOf(list, v => w(wordOf(key, v)))"
        />
        <ChoiceField
          v-model="state.period"
          :label="w('intake.period')"
          :options="optionsOf([...PERIODS, 'unknown'], v => w(`period.${v}`))"
        />
        <DateField v-model="state.dueOn" :label="w('intake.due')" :error="errors.dueOn" />
        <SwitchField v-model="state.keepPatina" class="sm:mt-5" :label="w('intake.patina')" />
        <SwitchField v-model="state.rustic" class="sm:mt-5" :label="w('intake.rustic')" />
      </div>
    </fieldset>
    <fieldset class="row mt-4">
      <legend class="float-left w-full font-bold">{{ w('intake.lead') }}</legend>
      <p class="caption clear-both">{{ w('intake.leadWhy') }}</p>
      <RadioField
        v-model="state.lead"
        class="mt-2"
        :label="w('intake.lead')"
        label-hidden
        :options="optionsOf(['no', 'unknown', 'yes'], v => w(`lead.${v}`))"
        :error="errors.lead"
      />
    </fieldset>

    <SwitchField v-model="later" class="row mt-4" :label="w('intake.later')" />
    <PartsForm v-if="!later" v-model="state.parts" :errors="errors" />
    <div class="flex justify-end mt-4">
      <button class="act" :disabled="busy">{{ w('intake.save') }}</button>
    </div>
  </form>
</template>
