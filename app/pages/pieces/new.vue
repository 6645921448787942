<script setup lang="ts">
import { isWooden, PERIODS, SUBSTRATES, USES } from '#core/piece'
import { faceArea_m2, parseLength_mm, SHAPES } from '#core/units'
import { SPECIES } from '#core/wood'

const session = useSession()
const unit = computed(() => session.shop?.length_unit ?? 'mm')
type Face = Draft<'POST /api/pieces'>['parts'][number]['faces'][number]
const blankFace = (): Face => ({
  name: '',
  rank: 'show',
  shape: 'flat',
  orientation: 'horizontal',
  length: '',
  width: '',
  count: 1,
  species: 'oak',
  substrate: 'solid',
  veneer: '',
})
const blankPart = (): Draft<'POST /api/pieces'>['parts'][number] => ({
  name: '',
  scope: 'refinish',
  faces: [blankFace()],
})
const firstParts = () => [blankPart()]
const {
  draft: state,
  errors,
  busy,
  submit,
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
function area(f: Face): number | null {
  const length_mm = parseLength_mm(f.length, unit.value)
  const width_mm = parseLength_mm(f.width, unit.value)
  if (length_mm === null || width_mm === null || !f.count || !Number.isInteger(f.count) || f.count < 1) return null
  return faceArea_m2({ shape: f.shape, length_mm, width_mm, count: f.count })
}
const total = computed(() =>
  state.value.parts.flatMap(p => (p.scope === 'refinish' ? p.faces : [])).reduce((sum, f) => sum + (area(f) ?? 0), 0),
)
/** What was typed outlives the page, on this device, until it is taken in or begun anew. */
const kept = useLocalStorage<string | null>('hantverk-take-in', null)
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
}
/** A photograph first: it goes to the piece when there is one. */
const picture = ref<File | null>(null)
const shown = useObjectUrl(picture)
async function save() {
  const made = await submit({})
  if (!made) return
  if (picture.value) {
    const body = new FormData()
    body.append('picture', picture.value)
    await send('POST /api/pieces/:id/photographs', { id: made.id, body })
  }
  kept.value = null
  await navigateTo(`/pieces/${made.id}`)
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

    <section v-for="(part, i) in state.parts" :key="i" class="row mt-4">
      <div class="grid sm:grid-cols-[1fr_16rem_auto] gap-4 items-end">
        <TextField v-model="part.name" :label="w('intake.part')" :error="errors[`parts.${i}.name`]" required />
        <ChoiceField
          v-model="part.scope"
          :label="w('intake.scope')"
          :options="optionsOf(['refinish', 'protect', 'match'], v => w(`scope.${v}`))"
        />
        <button v-if="state.parts.length > 1" type="button" class="act act-quiet" @click="state.parts.splice(i, 1)">
          {{ w('remove') }}
        </button>
      </div>
      <div
        v-for="(face, j) in part.faces"
        :key="j"
        class="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-3 mt-4 pl-4 border-l-2 border-line"
      >
        <TextField
          v-model="face.name"
          :label="w('intake.face')"
          :error="errors[`parts.${i}.faces.${j}.name`]"
          required
        />
        <ChoiceField
          v-model="face.shape"
          :label="w('intake.shape')"
          :options="optionsOf(SHAPES, v => w(`shape.${v}`))"
        />
        <SizeField
          v-model="face.length"
          :label="`${w('intake.length')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.length`]"
          required
        />
        <SizeField
          v-model="face.width"
          :label="`${face.shape === 'turned' ? w('intake.diameter') : w('intake.width')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.width`]"
          required
        />
        <NumberField
          v-model="face.count"
          :label="w('intake.count')"
          :min="1"
          :error="errors[`parts.${i}.faces.${j}.count`]"
        />
        <p class="self-end pb-2">
          <span class="caption block">{{ w('intake.area') }}</span><strong class="clock text-lg" data-test="area">{{
            area(face) === null ? '–' : `${area(face)!.toFixed(3)} m²`
          }}</strong>
        </p>
        <FindField
          v-if="isWooden(face.substrate)"
          v-model="face.species"
          :label="w('intake.species')"
          :options="namedOptions(SPECIES)"
        />
        <ChoiceField
          v-model="face.substrate"
          :label="w('intake.substrate')"
          :options="optionsOf(SUBSTRATES, x => w(`substrate.${x}`))"
        />
        <SizeField
          v-if="face.substrate === 'veneer'"
          v-model="face.veneer"
          :label="`${w('intake.veneer')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.veneer`]"
        />
        <ChoiceField
          v-model="face.orientation"
          :label="w('intake.orientation')"
          :options="[
            { value: 'horizontal', label: w('orientation.horizontal') },
            { value: 'vertical', label: w('orientation.vertical') },
          ]"
        />
        <ChoiceField
          v-model="face.rank"
          :label="w('intake.rank')"
          :options="optionsOf(['show', 'secondary', 'hidden'], v => w(`rank.${v}`))"
        />
        <button
          v-if="part.faces.length > 1"
          type="button"
          class="act act-quiet self-end"
          @click="part.faces.splice(j, 1)"
        >
          {{ w('remove') }}
        </button>
      </div>
      <button type="button" class="act act-quiet mt-4" @click="part.faces.push(blankFace())">
        {{ w('intake.addFace') }}
      </button>
    </section>
    <div class="row flex flex-wrap items-center gap-4 mt-4">
      <button type="button" class="act act-quiet" @click="state.parts.push(blankPart())">
        {{ w('intake.addPart') }}
      </button>
      <span class="grow"
        >{{ w('intake.total') }} <strong class="clock">{{ total.toFixed(3) }} m²</strong></span
      >
      <button class="act" :disabled="busy">{{ w('intake.save') }}</button>
    </div>
  </form>
</template>
