<script setup lang="ts">
import { PIECE_STATES } from '#core/piece'

const session = useSession()
const { day, percent } = useFormat()
const { query } = useRoute()
const find = ref(typeof query.find === 'string' ? query.find : '')
const STATES = [...PIECE_STATES, 'all'] as const
const state = ref<(typeof STATES)[number]>('active')
const finding = refDebounced(find, 200)
const { data: pieces, failed } = useLive(
  'GET /api/pieces',
  topic => topic !== 'air' && topic !== 'store',
  () => ({ query: { state: state.value, find: finding.value } }),
)
/** What is asked about opens at its estimate, what has a route at its plan. */
function pageOf(p: { id: number; state: string; route: string | null }) {
  if (p.state === 'enquiry' && session.may('quote')) return `/pieces/${p.id}/estimate`
  return `/pieces/${p.id}${p.route ? '/plan' : ''}`
}
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-4">
      <h1 class="grow">{{ w('pieces.title') }}</h1>
      <label class="sr-only" for="find">{{ w('pieces.find') }}</label>
      <input id="find" v-model="find" class="field !w-72 max-lg:!w-60" :placeholder="w('pieces.find')" type="search" />
      <ChoiceField
        v-model="state"
        :label="w('pieces.which')"
        label-hidden
        :options="optionsOf(STATES, s => w(`pieces.${s}`))"
        class="w-48"
      />
      <NuxtLink v-if="session.may('take-in')" to="/pieces/enquiry" class="act act-quiet no-underline">{{
        w('enquiry.ask')
      }}</NuxtLink>
      <NuxtLink v-if="session.may('take-in')" to="/pieces/new" class="act no-underline">{{
        w('pieces.takeIn')
      }}</NuxtLink>
    </div>
    <p v-if="failed" class="verdict verdict-stop mt-4">{{ failed.message }}</p>
    <div class="mt-4" data-test="pieces">
      <NuxtLink v-for="p in pieces ?? []" :key="p.id" :to="pageOf(p)" class="row piece-row no-underline">
        <span class="text-xl font-semibold clock">{{ p.id }}</span>
        <span
          ><strong>{{ p.name }}</strong
          ><span class="caption block">{{ p.client_name }}</span></span
        >
        <span class="max-lg:hidden">{{ p.route ? w(`route.${p.route}`) : w('pieces.noRoute') }}</span>
        <span class="max-md:hidden">
          <svg
            v-if="p.steps"
            viewBox="0 0 100 8"
            class="w-full h-2"
            role="img"
            :aria-label="w('pieces.steps', { done: p.done, steps: p.steps })"
            preserveAspectRatio="none"
          >
            <rect x=".5" y=".5" width="99" height="7" fill="none" stroke="var(--color-soft)" stroke-dasharray="3 2" />
            <rect width="100" height="8" :style="{ width: `${(100 * p.done) / p.steps}px` }" fill="var(--color-moss)" />
          </svg>
          <span class="caption">{{
            p.state === 'active'
              ? p.steps
                ? w('pieces.steps', { done: p.done, steps: p.steps })
                : ''
              : w(`pieces.${p.state}`)
          }}</span>
        </span>
        <span class="text-right"
          ><span class="clock">{{ p.due_on ? day(p.due_on) : '' }}</span
          ><span v-if="p.likely_at && p.safe_at" class="caption block">{{
            w('pieces.likely', { likely: day(p.likely_at), safe: day(p.safe_at) })
          }}</span
          ><span v-if="p.risk !== null && p.risk >= RISKY" class="block text-ochre font-semibold">{{
            w('pieces.risk', { percent: percent(p.risk) })
          }}</span></span
        >
      </NuxtLink>
      <p v-if="pieces && !pieces.length" class="row">{{ find ? w('pieces.noneFound') : w('pieces.none') }}</p>
    </div>
  </div>
</template>
