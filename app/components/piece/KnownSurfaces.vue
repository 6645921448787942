<script setup lang="ts">
import { type BuildUp, inWords, isSaidOf, KNOWN_SURFACES, knownFrom, type KnownSurface, likeness } from '#core/build'
import type { Facts } from '#core/piece'
import { speciesOf } from '#core/wood'

/** Surfaces known by name, those that fit this piece's wood and look first; what is composed can be kept as one. */
const props = defineProps<{ facts: Facts; buildUp: BuildUp }>()
const emit = defineEmits<{ lay: [surface: KnownSurface] }>()
type Listed = KnownSurface & { id: number | null }
const { data, load } = useLive('GET /api/surfaces', topic => topic === 'store')
const session = useSession()
const typed = ref('')
const all = computed((): Listed[] => {
  const own = (data.value?.own ?? []) as unknown as (KnownSurface & { id: number })[]
  return [...own, ...KNOWN_SURFACES.filter(k => !own.some(o => o.name === k.name)).map(k => ({ ...k, id: null }))]
})
const shown = computed(() =>
  all.value
    .filter(k => isSaidOf(k, typed.value))
    .map(k => ({ ...k, fits: likeness(k, props.facts) }))
    .sort((a, b) => b.fits - a.fits),
)
const look = (k: KnownSurface) =>
  [w(`sheen.${k.sheen}`), w(`tone.${k.tone}`), k.woods.map(s => speciesOf(s).name).join(', ')]
    .filter(Boolean)
    .join(' · ')

const name = ref('')
const { errors, submit } = useSubmit('POST /api/surfaces', () => knownFrom(name.value, props.buildUp, props.facts))
async function keep() {
  if (!(await submit({}))) return
  useNotes().show(w('surface.kept', { name: name.value.trim() }))
  name.value = ''
  await load()
}
async function forget({ id, ...surface }: Listed) {
  if (id === null || !(await send('DELETE /api/surfaces/:id', { id }))) return
  await load()
  useNotes().show(w('surface.forgotten', { name: surface.name }), 'done', async () => {
    const { name: called, ending, sheen, tone, woods, layers } = surface
    await send('POST /api/surfaces', {
      body: { name: called, ending, sheen, tone, woods: [...woods], layers: [...layers] },
    })
    await load()
  })
}
</script>

<template>
  <section data-test="known-surfaces">
    <h2>{{ w('surface.known') }}</h2>
    <TextField v-model="typed" :label="w('surface.find')" />
    <ul class="max-h-[26rem] overflow-y-auto">
      <li v-for="k in shown" :key="k.name" class="border-b border-line flex items-start gap-2">
        <button type="button" class="grow min-h-12 text-left py-2" :data-known="k.name" @click="emit('lay', k)">
          {{ k.name }}<span class="caption block">{{ inWords(k) }}</span
          ><span class="caption block" :class="k.fits > 1 ? 'text-moss' : ''">{{ look(k) }}</span>
        </button>
        <button
          v-if="k.id !== null && session.may('plan')"
          type="button"
          class="underline min-h-12 px-2"
          @click="forget(k)"
        >
          {{ w('surface.forget') }}
        </button>
      </li>
    </ul>
    <p v-if="!shown.length" class="row">{{ w('surface.noneKnown') }}</p>
    <form v-if="session.may('plan')" class="grid gap-2 mt-4" @submit.prevent="keep">
      <TextField v-model="name" :label="w('surface.keepAs')" :error="errors.name ?? errors.layers" />
      <button class="act justify-self-start">{{ w('surface.keep') }}</button>
    </form>
  </section>
</template>
