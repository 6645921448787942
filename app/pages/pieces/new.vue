<script setup lang="ts">
import { useRegleSchema } from '@regle/schemas'
import { PERIODS } from '#core/piece'
import { faceArea_m2, parseLength_mm, SHAPES, type Shape } from '#core/units'
import { SPECIES } from '#core/wood'
import { takeIn } from '#shared/schemas'

const session = useSession()
const unit = computed(() => session.shop?.length_unit ?? 'mm')
const blankFace = () => ({
  name: '',
  rank: 'show',
  shape: 'flat' as Shape,
  orientation: 'horizontal',
  length: '',
  width: '',
  count: 1,
  species: 'oak',
  substrate: 'solid',
  veneer: '',
})
const state = ref({
  name: '',
  note: '',
  client: { name: '', email: '', phone: '' },
  use: 'daily',
  tone: 'same',
  sheen: 'satin',
  age: 'keep',
  dueOn: null as string | null,
  period: 'unknown',
  refinished: 'unknown',
  keepPatina: false,
  lead: undefined as string | undefined,
  parts: [{ name: '', scope: 'refinish', faces: [blankFace()] }],
})
const { r$ } = useRegleSchema(state as never, takeIn as never) as unknown as {
  r$: { $validate: () => Promise<{ valid: boolean }> }
}
const errors = ref<Record<string, string>>({})
const busy = ref(false)
const asked = ref(false)

function collect() {
  const result = takeIn.safeParse(state.value)
  errors.value = {}
  if (result.success) return
  for (const issue of result.error.issues) errors.value[issue.path.join('.')] ??= issue.message
}
watch(
  state,
  () => {
    if (asked.value) collect()
  },
  { deep: true },
)
function area(f: ReturnType<typeof blankFace>): number | null {
  const length_mm = parseLength_mm(f.length, unit.value)
  const width_mm = parseLength_mm(f.width, unit.value)
  if (length_mm === null || width_mm === null || !Number.isInteger(f.count) || f.count < 1) return null
  return faceArea_m2({ shape: f.shape, length_mm, width_mm, count: f.count })
}
const total = computed(() =>
  state.value.parts.flatMap(p => (p.scope === 'refinish' ? p.faces : [])).reduce((sum, f) => sum + (area(f) ?? 0), 0),
)
async function save() {
  asked.value = true
  collect()
  const { valid } = await r$.$validate()
  if (!valid) {
    collect()
    useNotes().show(Object.values(errors.value)[0] ?? '', 'stop')
    await nextTick()
    document.querySelector<HTMLElement>('[aria-invalid=true]')?.focus()
    return
  }
  busy.value = true
  const made = await send<{ id: number }>('POST', '/api/pieces', state.value)
  busy.value = false
  if (made) await navigateTo(`/pieces/${made.id}`)
}
const choices = {
  use: ['display', 'daily', 'hard'],
  tone: ['lighter', 'same', 'darker', 'match'],
  sheen: ['matt', 'satin', 'semi-gloss', 'gloss'],
  age: ['keep', 'new'],
  refinished: ['yes', 'no', 'unknown'],
} as const
</script>

<template>
  <form class="max-w-5xl" novalidate @submit.prevent="save">
    <h1>{{ w('intake.title') }}</h1>
    <div class="grid sm:grid-cols-2 gap-4 mt-4">
      <TextField v-model="state.name" :label="w('intake.name')" :error="errors.name" required />
      <TextField v-model="state.client.name" :label="w('intake.client')" :error="errors['client.name']" required />
      <TextField v-model="state.client.email" :label="w('intake.email')" type="email" :error="errors['client.email']" />
      <TextField v-model="state.client.phone" :label="w('intake.phone')" :error="errors['client.phone']" />
    </div>
    <fieldset class="row mt-6">
      <legend class="sr-only">{{ w('intake.wish') }}</legend>
      <div class="grid sm:grid-cols-3 gap-4">
        <label v-for="(list, key) in choices" :key="key"
          >{{ w(`intake.${key}`) }}
          <select v-model="state[key]" class="field">
            <option v-for="v in list" :key="v" :value="v">{{ w(wordOf(key, v)) }}</option>
          </select>
        </label>
        <label
          >{{ w('intake.period') }}
          <select v-model="state.period" class="field">
            <option v-for="v in [...PERIODS, 'unknown']" :key="v" :value="v">{{ w(`period.${v}`) }}</option>
          </select></label
        >
        <label>{{ w('intake.due') }} <input v-model="state.dueOn" type="date" class="field" /></label>
        <label class="flex items-center gap-3 min-h-12 mt-5"
          ><input v-model="state.keepPatina" type="checkbox" class="size-6" /> {{ w('intake.patina') }}</label
        >
      </div>
    </fieldset>
    <fieldset class="row mt-4">
      <legend class="float-left w-full font-bold">{{ w('intake.lead') }}</legend>
      <p class="caption clear-both">{{ w('intake.leadWhy') }}</p>
      <div class="flex flex-wrap gap-3 mt-2" role="radiogroup" :aria-label="w('intake.lead')">
        <button
          v-for="v in ['no', 'unknown', 'yes']"
          :key="v"
          type="button"
          role="radio"
          :aria-checked="state.lead === v"
          class="act"
          :class="state.lead === v ? '' : 'act-quiet'"
          @click="state.lead = v"
        >
          {{ w(`lead.${v}`) }}
        </button>
      </div>
      <p v-if="errors.lead" class="text-madder mt-1">{{ errors.lead }}</p>
    </fieldset>

    <section v-for="(part, i) in state.parts" :key="i" class="row mt-4">
      <div class="grid sm:grid-cols-[1fr_16rem_auto] gap-4 items-end">
        <TextField v-model="part.name" :label="w('intake.part')" :error="errors[`parts.${i}.name`]" required />
        <label
          >{{ w('intake.scope') }}
          <select v-model="part.scope" class="field">
            <option v-for="v in ['refinish', 'protect', 'match']" :key="v" :value="v">{{ w(`scope.${v}`) }}</option>
          </select></label
        >
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
        <label
          >{{ w('intake.shape') }}
          <select v-model="face.shape" class="field">
            <option v-for="v in SHAPES" :key="v" :value="v">{{ w(`shape.${v}`) }}</option>
          </select></label
        >
        <TextField
          v-model="face.length"
          :label="`${w('intake.length')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.length`]"
          required
        />
        <TextField
          v-model="face.width"
          :label="`${face.shape === 'turned' ? w('intake.diameter') : w('intake.width')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.width`]"
          required
        />
        <label
          >{{ w('intake.count') }}
          <input
            v-model.number="face.count"
            type="number"
            min="1"
            class="field"
            inputmode="numeric"
            :aria-invalid="Boolean(errors[`parts.${i}.faces.${j}.count`])"
          /><span class="text-madder">{{ errors[`parts.${i}.faces.${j}.count`] }}</span></label
        >
        <p class="self-end pb-2">
          <span class="caption block">{{ w('intake.area') }}</span><strong class="clock text-lg" data-test="area">{{
            area(face) === null ? '–' : `${area(face)!.toFixed(3)} m²`
          }}</strong>
        </p>
        <label
          >{{ w('intake.species') }}
          <select v-model="face.species" class="field">
            <option v-for="s in SPECIES" :key="s.slug" :value="s.slug">{{ s.name }}</option>
          </select></label
        >
        <label
          >{{ w('intake.substrate') }}
          <select v-model="face.substrate" class="field">
            <option value="solid">{{ w('substrate.solid') }}</option>
            <option value="veneer">{{ w('substrate.veneer') }}</option>
          </select></label
        >
        <TextField
          v-if="face.substrate === 'veneer'"
          v-model="face.veneer"
          :label="`${w('intake.veneer')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.veneer`]"
        />
        <label
          >{{ w('intake.orientation') }}
          <select v-model="face.orientation" class="field">
            <option value="horizontal">{{ w('orientation.horizontal') }}</option>
            <option value="vertical">{{ w('orientation.vertical') }}</option>
          </select></label
        >
        <label
          >{{ w('intake.rank') }}
          <select v-model="face.rank" class="field">
            <option v-for="v in ['show', 'secondary', 'hidden']" :key="v" :value="v">{{ w(`rank.${v}`) }}</option>
          </select></label
        >
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
      <button
        type="button"
        class="act act-quiet"
        @click="state.parts.push({ name: '', scope: 'refinish', faces: [blankFace()] })"
      >
        {{ w('intake.addPart') }}
      </button>
      <span class="grow"
        >{{ w('intake.total') }} <strong class="clock">{{ total.toFixed(3) }} m²</strong></span
      >
      <button class="act" :disabled="busy">{{ w('intake.save') }}</button>
    </div>
  </form>
</template>
