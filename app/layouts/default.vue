<script setup lang="ts">
import { STALE_AFTER_MIN } from '#core/air/room'
import { Archive, Armchair, CalendarRange, Clock4, House, MessageSquareText, Palette } from '@lucide/vue'

const session = useSession()
const events = useEvents()
const line = useLine()
const waiting = useWaiting()
const program = useProgram()
const clock = useClock()
const { dayTime, degrees } = useFormat()
const dark = useEvening()
const places = [
  ['/', 'now', Clock4],
  ['/pieces', 'pieces', Armchair],
  ['/timetable', 'timetable', CalendarRange],
  ['/colour', 'colour', Palette],
  ['/store', 'store', Archive],
  ['/answers', 'answers', MessageSquareText],
  ['/shop', 'shop', House],
] as const
const route = useRoute()
const here = (to: string) =>
  to === '/' ? route.path === '/' : route.path.startsWith(to) || (to === '/colour' && route.path.startsWith('/mixing'))
const { data: bench, load } = await useLiveFirst('GET /api/now', topic => topic !== 'store')
const shown = useBenchShown(bench)
provide(BENCH, shown)
watch(
  bench,
  now => {
    if (now) clock.set(now.now_ms)
  },
  { immediate: true },
)
/** Nothing is shown to be touched before an alarm could push it down; a silent bench is not waited for. */
const settled = ref(bench.value !== null)
watch(bench, () => (settled.value = true), { once: true })
useTimeoutFn(() => (settled.value = true), 1500)
/** Windows open and close by themselves: ask again even when nobody does anything. */
useIntervalFn(load, 20_000)
/** From now on a touch is heard. */
const live = ref(false)
onMounted(() => {
  events.reopen()
  live.value = true
  void program.keep()
  void waiting.recall()
})
/** The line is back: what was done by a name alone goes in, and the PIN is asked for. */
watch(
  () => line.away,
  async away => {
    if (away) return
    void program.look()
    if (!session.byName) return
    await waiting.sendAll()
    await toTheDoor()
  },
)
useEarlyTouch()
usePacking(bench)
useScreenOn(() => shown.value?.running.some(step => step.spells.some(s => s.to_ms === null)) ?? false)
async function leave() {
  await session.leave(route.fullPath)
  events.close()
  await toTheDoor()
}
/** On a tablet of the shop whoever walked away is signed out. */
const { idle } = useIdle((session.tablet?.idleMin ?? 0) * 60_000 || 2 ** 31 - 1)
watch(idle, gone => {
  if (gone && session.tablet) void leave()
})
/** What one may do, and which tablet this is, may have been changed. */
onUnmounted(
  events.on(topic => {
    if (topic === 'shop') void session.load()
  }),
)
const proof = useProof()
const seeking = ref(false)
const showsKeys = ref(false)
onPlainKey({ '/': () => (seeking.value = true), '?': () => (showsKeys.value = true) })
/** Without a line, air that was read too long ago is unknown air. */
const air = computed(() => {
  const its = shown.value?.air
  const old = its?.reading && line.away && clock.now - Date.parse(its.reading.at) > STALE_AFTER_MIN * 60_000
  return old ? { ...its, fresh: false } : its
})
</script>

<template>
  <div :data-live="live || undefined" class="min-h-screen md:pl-22 pb-24 md:pb-16 print:!p-0">
    <a href="#content" class="sr-only focus:not-sr-only focus:fixed focus:z-50 focus:bg-sheet focus:p-3">{{
      w('skip')
    }}</a>
    <nav class="rail" :aria-label="w('rail.label')">
      <NuxtLink
        v-for="[to, word, icon] in places"
        :key="to"
        :to="to"
        class="rail-link"
        :class="here(to) ? 'bg-[#35403c] !text-white md:!border-[#7cc4b8]' : ''"
        :aria-current="here(to) ? 'page' : undefined"
      >
        <component :is="icon" :size="24" :stroke-width="1.6" aria-hidden="true" />{{ w(`rail.${word}`) }}
      </NuxtLink>
    </nav>
    <header class="shop-header print:!hidden">
      <span class="text-2xl max-md:text-xl font-bold clock min-w-48 max-md:min-w-0" data-test="clock">{{
        clock.now ? dayTime(clock.now) : ' '
      }}</span>
      <span v-if="session.mode !== 'shop'" class="caption">{{ w('demoTime') }}</span>
      <template v-if="air?.reading">
        <template v-if="air.fresh">
          <span
            ><strong class="clock">{{ degrees(air.reading.temperature_C) }}</strong> {{ w('air.air') }}</span
          >
          <span
            ><strong class="clock">{{ Math.round(air.reading.rh * 100) }} %</strong> {{ w('air.rh') }}</span
          >
          <span class="max-md:hidden"
            ><strong class="clock">{{ air.dew_C == null ? '' : degrees(air.dew_C) }}</strong> {{ w('air.dew') }}</span
          >
          <span v-if="session.mode === 'shop' && air.reading.source === 'simulated logger'" class="caption">{{
            w('air.simulated')
          }}</span>
        </template>
        <strong v-else class="text-madder" data-test="air-stale">{{
          w('air.stale', { at: dayTime(air.reading.at) })
        }}</strong>
      </template>
      <strong v-else-if="air" class="text-madder">{{ w('air.none') }}</strong>
      <span
        v-if="air?.fresh && (air.lacquer.severity === 'stop' || !air.barred.length)"
        class="font-semibold"
        :class="air.lacquer.severity === 'stop' ? 'text-madder' : 'text-verdigris'"
        >{{
          w(
            air.general.severity === 'stop'
              ? 'air.allStop'
              : air.lacquer.severity === 'stop'
                ? 'air.noLacquer'
                : 'air.allMay',
          )
        }}</span
      >
      <span
        v-if="air?.barred.length"
        class="text-madder font-semibold"
        :title="air.barred.map(b => b.says).join(' ')"
        data-test="barred"
        >{{ w('air.barred', { names: air.barred.map(b => b.name).join(', ') }) }}</span
      >
      <LineState />
      <span class="ml-auto flex items-baseline gap-3">
        <button class="underline min-h-11 px-1" aria-keyshortcuts="/" @click="seeking = true">
          {{ w('seek.open') }}
        </button>
        <button class="underline min-h-11 px-1" @click="dark = !dark">{{ dark ? w('day') : w('evening') }}</button>
        <span class="caption"
          >{{ session.person?.name }}, {{ session.person ? w(`role.${session.person.role}`) : '' }}</span
        >
        <button class="underline min-h-11 px-1" @click="leave">
          {{ w(session.tablet ? 'door.change' : 'signOut') }}
        </button>
      </span>
    </header>
    <LazyProofBox v-if="proof.asking" />
    <LazyKeysBox v-if="showsKeys" @close="showsKeys = false" />
    <LazySeekBox v-if="seeking" @close="seeking = false" />
    <div v-if="shown" class="print:hidden"><AlarmBand :bench="shown" /></div>
    <main v-show="settled" id="content" class="px-6 py-5"><slot /></main>
    <FootNote />
  </div>
</template>
