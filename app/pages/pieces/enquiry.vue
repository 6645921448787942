<script setup lang="ts">
/** What a piece would take, before it is here: kind, sizes, how it looks, what is wished, its wood, a photograph. */
import { CONDITIONS, PIECE_KINDS, type PieceKind, USUAL_SIZE } from '#core/estimate/template'
import { FINISHES } from '#core/materials'
import { SHEENS, TONES, USES } from '#core/piece'
import { MM_PER_INCH } from '#core/units'
import { SPECIES } from '#core/wood'
import { shrunk } from '~/offline/picture'

const { draft, errors, busy, submit } = useForm('POST /api/enquiries', () => ({
  ...{ name: '', client: { id: null, name: '', email: '', phone: '' }, kind: undefined as never, count: 1 },
  ...{ length: '', width: '', height: '', condition: undefined as never, species: 'unknown', veneered: false },
  ...({ use: 'daily', tone: 'same', sheen: 'satin', finish: null, lead: undefined as never } as const),
}))
const picture = ref<File | null>(null)
const shown = useObjectUrl(picture)
// a name of its own can be given; its kind is one
watch(
  () => draft.value.kind,
  (kind, before) => {
    const usual = (k: typeof kind) => (k ? sentence(w(`enquiry.kinds.${k}`)) : '')
    if (!draft.value.name || draft.value.name === usual(before)) draft.value.name = usual(kind)
    for (const side of SIDES)
      if (!draft.value[side] || draft.value[side] === sizeOf(before, side)) draft.value[side] = sizeOf(kind, side)
  },
)
const SIDES = ['length', 'width', 'height'] as const
const session = useSession()
/** What a piece of this kind usually measures, as it is typed in this shop. */
function sizeOf(kind: PieceKind | undefined, side: (typeof SIDES)[number]): string {
  if (!kind) return ''
  const mm = USUAL_SIZE[kind][side]
  return session.shop?.length_unit === 'in' ? `${Math.round(mm / MM_PER_INCH)} in` : `${mm} mm`
}
const sentence = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)
const finishes = [
  { value: null, label: w('enquiry.asHouse') },
  ...FINISHES.map(f => ({ value: f, label: w(`finish.${f}`) })),
]
async function save() {
  const made = await submit({})
  if (!made) return
  const small = picture.value ? await shrunk(picture.value) : null
  if (small)
    await send('POST /api/pieces/:id/photographs', {
      ...{ id: made.id, query: { taken: small.taken }, body: pictureBody(small.picture) },
    })
  await navigateTo(useSession().may('quote') ? `/pieces/${made.id}/estimate` : `/pieces/${made.id}`)
}
</script>

<template>
  <form class="max-w-3xl grid gap-4" novalidate @submit.prevent="save">
    <h1>{{ w('enquiry.ask') }}</h1>
    <p class="caption">{{ w('enquiry.why') }}</p>
    <RadioField
      v-model="draft.kind"
      :label="w('enquiry.kind')"
      :options="optionsOf(PIECE_KINDS, k => w(`enquiry.kinds.${k}`))"
      :error="errors.kind"
    />
    <p v-if="draft.kind" class="caption">{{ w('enquiry.usualSize') }}</p>
    <div class="grid grid-cols-3 gap-3">
      <SizeField v-model="draft.length" :label="w('enquiry.length')" :error="errors.length" required />
      <SizeField v-model="draft.width" :label="w('enquiry.width')" :error="errors.width" required />
      <SizeField v-model="draft.height" :label="w('enquiry.height')" :error="errors.height" required />
    </div>
    <NumberField
      v-model="draft.count"
      class="w-40"
      :label="w('enquiry.count')"
      :min="1"
      :max="24"
      :error="errors.count"
    />
    <RadioField
      v-model="draft.condition"
      :label="w('enquiry.looks')"
      :options="optionsOf(CONDITIONS, c => w(`enquiry.conditions.${c}`))"
      :error="errors.condition"
    />
    <RadioField
      v-model="draft.lead"
      :label="w('enquiry.lead')"
      :options="optionsOf(['no', 'unknown', 'yes'], v => w(`lead.${v}`))"
      :error="errors.lead"
    />
    <div class="grid sm:grid-cols-2 gap-3">
      <ChoiceField v-model="draft.use" :label="w('intake.use')" :options="optionsOf(USES, v => w(wordOf('use', v)))" />
      <ChoiceField
        v-model="draft.tone"
        :label="w('intake.tone')"
        :options="optionsOf(TONES, v => w(wordOf('tone', v)))"
      />
      <ChoiceField
        v-model="draft.sheen"
        :label="w('intake.sheen')"
        :options="optionsOf(SHEENS, v => w(wordOf('sheen', v)))"
      />
      <ChoiceField v-model="draft.finish" :label="w('enquiry.finish')" :options="finishes" />
      <ChoiceField
        v-model="draft.species"
        :label="w('intake.species')"
        :options="SPECIES.map(x => ({ value: x.slug, label: x.name }))"
      />
      <SwitchField v-model="draft.veneered" class="sm:mt-5" :label="w('enquiry.veneered')" />
    </div>
    <PictureField v-model="picture" :label="w('intake.picture')" />
    <img v-if="shown" :src="shown" class="max-h-60" :alt="w('intake.pictureShown')" />
    <div class="grid sm:grid-cols-2 gap-3">
      <TextField v-model="draft.client.name" :label="w('intake.client')" :error="errors['client.name']" required />
      <TextField v-model="draft.name" :label="w('intake.name')" :error="errors.name" required />
      <KnownClients v-model="draft.client" class="sm:col-span-2" />
      <TextField v-model="draft.client.email" :label="w('intake.email')" type="email" :error="errors['client.email']" />
      <TextField v-model="draft.client.phone" :label="w('intake.phone')" :error="errors['client.phone']" />
    </div>
    <button class="act justify-self-start" :disabled="busy">{{ w('enquiry.save') }}</button>
  </form>
</template>
