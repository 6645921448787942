<script setup lang="ts">
import { wentHome } from '#core/piece'

const route = useRoute()
const id = computed(() => Number(route.params.id))
const {
  data: page,
  failed,
  load,
} = useLive(
  'GET /api/pieces/:id',
  (topic, piece) => piece === id.value,
  () => ({ id: id.value }),
)
provide(PIECE, { page, load })
const promising = ref(false)
function promised() {
  promising.value = false
  void load()
}
/** It came back, to be mended or renewed. */
async function again() {
  const made = await send('POST /api/pieces/:id/again', { id: id.value, body: {} })
  if (made) await navigateTo(`/pieces/${made.id}`)
}
const { day, percent } = useFormat()
const session = useSession()
/** It is not in the shop: only asked about. */
const isAsked = computed(() => ['enquiry', 'declined'].includes(page.value?.piece.state ?? ''))
const tabs = computed(() => [
  ...(isAsked.value && session.may('quote') ? [['/estimate', 'estimate'] as const] : []),
  ...TABS,
])
const TABS = [
  ['', 'examine'],
  ['/route', 'route'],
  ['/surface', 'surface'],
  ['/plan', 'plan'],
  ['/colour', 'colour'],
  ['/client', 'client'],
  ['/log', 'log'],
] as const
const EXAMINE = ['', '/walk', '/finish', '/wood', '/hazards', '/parts', '/patch', '/photographs', '/report']
/** The pages of a tab. */
const PAGES: Readonly<Record<string, readonly string[]>> = { '': EXAMINE, '/plan': ['/plan', '/faults'] }
const here = (to: string) => (PAGES[to] ?? [to]).some(path => route.path === `/pieces/${id.value}${path}`)
useCurrentInView(useTemplateRef('row'))
</script>

<template>
  <div>
    <p v-if="failed" class="verdict verdict-stop">{{ failed.message }}</p>
    <template v-if="page">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h1>
          <span class="clock">{{ page.piece.id }}</span> {{ page.piece.name }}
        </h1>
        <span
          ><NuxtLink :to="`/clients/${page.piece.client_id}`">{{ page.piece.client_name }}</NuxtLink> ·
          {{ w(`tone.${page.piece.tone}`) }}, {{ w(`sheen.${page.piece.sheen}`)
          }}<template v-if="page.piece.due_on"> · {{ w('piece.due', { day: day(page.piece.due_on) }) }}</template></span
        >
        <button v-if="page.piece.state === 'active' && page.route" class="underline min-h-11" @click="promising = true">
          {{ w('promise.ask') }}
        </button>
        <NuxtLink v-if="page.piece.follows_id" :to="`/pieces/${page.piece.follows_id}`">{{
          w('piece.follows', { id: page.piece.follows_id })
        }}</NuxtLink>
        <strong v-if="page.risk !== null && page.risk >= RISKY" class="text-ochre">{{
          w('piece.risk', { percent: percent(page.risk) })
        }}</strong>
        <PiecePlace v-if="!wentHome(page.piece.state)" :piece="page.piece" @moved="load" />
        <strong v-if="page.leadSuspected" class="text-madder">{{ w('piece.lead') }}</strong>
        <strong v-if="page.hazards.some(h => h.slug !== 'lead')" class="text-madder">{{
          w('piece.hazard', {
            names: page.hazards
              .filter(h => h.slug !== 'lead')
              .map(h => h.name)
              .join(', '),
          })
        }}</strong>
        <strong v-if="page.piece.keep_patina" class="text-ochre">{{ w('piece.patina') }}</strong>
      </div>
      <div v-if="page.piece.state !== 'active'" class="row flex flex-wrap items-center gap-4 mt-2" data-test="state">
        <strong class="text-moss text-lg">{{
          w(`piece.${page.piece.state === 'handed-over' ? 'gone' : page.piece.state}`)
        }}</strong>
        <EnquiryState v-if="isAsked || page.piece.state === 'part-done'" :piece="page.piece" @changed="load" />
        <template v-if="!isAsked">
          <HandOver :piece="page.piece" :begun="Boolean(page.route)" @changed="load" />
          <NuxtLink v-if="page.became" :to="`/pieces/${page.became}`">{{
            w('piece.became', { id: page.became })
          }}</NuxtLink>
          <button
            v-else-if="page.piece.state === 'handed-over' && session.may('take-in')"
            class="act act-quiet"
            @click="again"
          >
            {{ w('piece.again') }}
          </button>
        </template>
      </div>
      <nav ref="row" class="flex gap-1 border-b border-line mt-2 overflow-x-auto" :aria-label="w('piece.tabs')">
        <NuxtLink
          v-for="[path, word] in tabs"
          :key="word"
          :to="`/pieces/${id}${path}`"
          class="px-5 min-h-12 inline-flex items-center no-underline border-b-4 -mb-px"
          :class="here(path) ? 'border-verdigris font-bold' : 'border-transparent text-soft'"
          :aria-current="here(path) ? 'page' : undefined"
          >{{ w(`tab.${word}`) }}</NuxtLink
        >
      </nav>
      <div class="pt-4"><NuxtPage /></div>
      <PromiseBox v-if="promising" :piece="page.piece" @close="promising = false" @changed="promised" />
    </template>
    <p v-else-if="!failed">{{ w('loading') }}</p>
  </div>
</template>
