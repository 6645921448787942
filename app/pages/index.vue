<script setup lang="ts">
import type { Window } from '#core/timetable'

const bench = inject(BENCH)!
const clock = useClock()
const { time, day, span } = useFormat()
const HOUR = 3_600_000
const { filter, set, places, shows, some } = useNowFilter()
const big = ref(false)

const drawn = computed((): readonly [number, number] => {
  const now = clock.now
  const from = Math.floor((now - HOUR) / HOUR) * HOUR
  return [from, Math.max(now + 3 * HOUR, (bench.value?.closing_ms ?? now) + HOUR / 2)]
})
const marks = computed(() => {
  const [from, to] = drawn.value
  const step = Math.ceil((to - from) / HOUR / 4) * HOUR
  return [1, 2, 3].map(n => ({ at: from + n * step, x: (n * step) / (to - from) })).filter(m => m.x < 0.95)
})
useRowKeys()
onPlainKey({ m: () => set({ mine: !filter.value.mine }), b: () => (big.value = !big.value) })
/** Pot life as a window: open from "mixed", closed at its end. */
const potWindow = (p: BenchNow['pots'][number]): Window => ({
  from: 'pot',
  to: 'pot',
  kind: 'order',
  why: '',
  hard: true,
  start_ms: p.mixed_ms,
  opens_ms: p.mixed_ms,
  likely_ms: null,
  safe_ms: null,
  closes_ms: p.ends_ms,
})
const all = computed(() => (bench.value?.windows ?? []).filter(shows))
const may = computed(() => (bench.value?.may ?? []).filter(shows))
const running = computed(() => (bench.value?.running ?? []).filter(shows))
const mustNot = computed(() => (bench.value?.mustNot ?? []).filter(shows))
const mayOf = (line: WindowLine) => bench.value?.may.find(s => s.stepId === line.step.stepId) ?? null
/** Opens only after the night: it is no clock of today's. */
const PARKED = 18 * HOUR
const parked = computed(() =>
  all.value
    .filter(l => l.closes_ms === null && l.opens_ms !== null && l.opens_ms - clock.now > PARKED)
    .sort((a, b) => a.opens_ms! - b.opens_ms!),
)
/** What runs out or opens today, with the pots that are mixed, by what closes first. */
const rows = computed(() => {
  const today = all.value.filter(l => !parked.value.includes(l) && (l.closes_ms !== null || !mayOf(l)))
  const list: { line: WindowLine | null; pot: BenchNow['pots'][number] | null }[] = today.map(line => ({
    line,
    pot: null,
  }))
  for (const pot of some.value ? [] : (bench.value?.pots ?? [])) {
    const at = list.findIndex(({ line, pot: p }) => (line ? (line.closes_ms ?? Infinity) : p!.ends_ms) > pot.ends_ms)
    list.splice(at < 0 ? list.length : at, 0, { line: null, pot })
  }
  return list
})
/** Steps that stand beside their bar, with their touch, stand nowhere else. */
const drawnSteps = computed(() => new Set(rows.value.flatMap(r => r.line?.step.stepId ?? [])))
const session = useSession()
const { airOf } = useRoomAir()
/** So near an end it is everybody's. */
const SOON_MS = 2 * HOUR
/** What closes soon, then one's own by the timetable, then the others'. */
const next = computed(() => {
  const list = may.value.filter(s => !drawnSteps.value.has(s.stepId))
  const rank = (s: StepLine) => {
    if (Math.min(s.closes_ms ?? Infinity, s.latest_ms ?? Infinity) < clock.now + SOON_MS) return 0
    return s.planned && s.planned.personId === session.person?.id ? 1 : 2
  }
  return list
    .map((s, i) => ({ s, i }))
    .sort((a, b) => rank(a.s) - rank(b.s) || a.i - b.i)
    .map(x => x.s)
})
const waitsFor = (s: StepLine) => all.value.some(l => l.step.stepId === s.stepId)
const only = (piece: number) => set({ piece: filter.value.piece === piece ? null : piece })
/** As many of each as are one look on a tablet: what must not start is in it, also while something is in hand. */
const most = computed(() => ({
  rows: 6,
  may: mustNot.value.length ? Math.max(2, 4 - 2 * running.value.length) : 5,
  mustNot: running.value.length ? 1 : 2,
}))
const whole = reactive({ rows: false, may: false, mustNot: false })
const first = <T,>(list: readonly T[], of: keyof typeof whole) => (whole[of] ? list : list.slice(0, most.value[of]))
</script>

<template>
  <div v-if="bench">
    <h1 class="sr-only">{{ w('rail.now') }}</h1>
    <CannotRead :pieces="bench.unreadable" />
    <LazyLateActs v-if="bench.late?.length" />
    <ul v-if="bench.air.rooms.length" class="flex flex-wrap gap-x-6 mb-3" data-test="room-air">
      <li v-for="r in bench.air.rooms" :key="r.id" :class="r.air ? 'text-soft' : 'text-madder'">
        <strong>{{ r.name }}</strong> {{ airOf(r.air, r.rain) }}
      </li>
    </ul>
    <LazyNowCare :solvent="may.some(s => s.cautions.includes('solvent'))" />
    <LazyBigClock v-if="big" :lines="rows.flatMap(r => r.line ?? [])" :running="running" @close="big = false" />
    <div v-else class="grid grid-cols-1 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)] gap-x-8 gap-y-6">
      <section :aria-label="w('now.windows')" class="min-w-0 @container">
        <div class="flex flex-wrap gap-2 items-center mb-1" role="group" :aria-label="w('now.shows')">
          <h2 class="grow">{{ w('now.windows') }}</h2>
          <button
            v-if="filter.piece !== null"
            class="chip"
            aria-pressed="true"
            data-test="only"
            @click="set({ piece: null })"
          >
            {{ w('now.only', { id: filter.piece }) }} ✕
          </button>
          <button class="chip" :aria-pressed="filter.mine" @click="set({ mine: !filter.mine })">
            {{ w('now.mine') }}
          </button>
          <button
            v-for="place in places"
            :key="place"
            class="chip"
            :aria-pressed="filter.place === place"
            @click="set({ place: filter.place === place ? null : place })"
          >
            {{ place }}
          </button>
          <button class="chip" @click="big = true">{{ w('now.bigClock') }}</button>
        </div>
        <div v-if="rows.length" class="window-row !py-0 !border-0 caption clock @max-xl:!hidden" aria-hidden="true">
          <span />
          <span class="relative h-5">
            <span v-for="m in marks" :key="m.at" class="absolute -translate-x-1/2" :style="{ left: `${m.x * 100}%` }">{{
              time(m.at)
            }}</span>
          </span>
        </div>
        <p v-if="!rows.length" class="row">{{ w(some ? 'now.filtered' : 'now.noWindow') }}</p>
        <template
          v-for="{ line, pot } in first(rows, 'rows')"
          :key="line ? `${line.pieceId}${line.from}${line.to}` : `pot${pot!.id}`"
        >
          <WindowRow v-if="line" :line="line" :drawn="drawn" :may="mayOf(line)" @piece="only" />
          <NuxtLink v-else-if="pot" :to="`/mixing/${pot.id}`" class="window-row no-underline" data-test="pot-window">
            <span class="leading-snug pl-14"
              ><strong class="block">{{ w('mix.pot', { id: pot.id }) }} {{ pot.name }}</strong
              ><span class="caption">{{ pot.piece }}</span></span
            >
            <WindowBar
              class="@max-xl:order-3 @max-xl:col-span-2"
              :window="potWindow(pot)"
              :span="drawn"
              :now="clock.now"
              :closing="bench.closing_ms"
              :label="`${pot.name}: ${w('mix.useBy', { at: time(pot.ends_ms) })}`"
            />
            <span class="text-right leading-tight"
              ><span class="caption block">{{ w(clock.now > pot.ends_ms ? 'now.potOver' : 'now.potEnds') }}</span
              ><strong
                class="text-xl clock"
                :class="
                  clock.now > pot.ends_ms
                    ? 'text-madder'
                    : pot.ends_ms - clock.now < 30 * 60_000
                      ? 'text-ochre'
                      : 'text-verdigris'
                "
                >{{ clock.now > pot.ends_ms ? time(pot.ends_ms) : span(pot.ends_ms - clock.now) }}</strong
              ></span
            >
          </NuxtLink>
        </template>
        <MoreLines v-model="whole.rows" :n="rows.length - most.rows" />
        <FoldOut v-if="parked.length" data-test="parked">
          <template #title
            ><span class="underline">{{
              w('now.parked', { n: parked.length, day: day(parked[0]!.opens_ms!) })
            }}</span></template
          >
          <WindowRow
            v-for="line in parked"
            :key="line.step.stepId"
            :line="line"
            :drawn="drawn"
            :may="null"
            @piece="only"
          />
        </FoldOut>
      </section>
      <div class="grid grid-cols-1 gap-5 content-start min-w-0">
        <section v-if="running.length">
          <h2>{{ w('now.running') }}</h2>
          <HandRow v-for="s in running" :key="s.stepId" :line="s" @piece="only" />
        </section>
        <section>
          <h2>{{ w('now.may') }}</h2>
          <p v-if="!next.length" class="row">
            {{
              bench.open
                ? w(some ? 'now.filtered' : running.length ? 'now.nothingElse' : 'now.nothing')
                : w('now.shut', { at: `${day(bench.nextOpen_ms)} ${time(bench.nextOpen_ms)}` })
            }}
          </p>
          <MayRow v-for="s in first(next, 'may')" :key="s.stepId" :line="s" :waits="waitsFor(s)" @piece="only" />
          <MoreLines v-model="whole.may" :n="next.length - most.may" />
        </section>
        <section v-if="mustNot.length">
          <h2>{{ w('now.mustNot') }}</h2>
          <div v-for="s in first(mustNot, 'mustNot')" :key="s.stepId" class="row !py-1.5" data-test="must-not">
            <StepTitle :step="s" @piece="only" />
            <p class="verdict verdict-stop mt-1 line-clamp-3">{{ s.says }}</p>
          </div>
          <MoreLines v-model="whole.mustNot" :n="mustNot.length - most.mustNot" />
        </section>
      </div>
    </div>
    <div v-if="!big" class="grid grid-cols-1 lg:grid-cols-2 gap-x-8 gap-y-6 mt-6">
      <section v-if="bench.waiting.length">
        <h2>{{ w('now.waiting') }}</h2>
        <NuxtLink
          v-for="w in bench.waiting"
          :key="w.pieceId + w.says"
          :to="`/pieces/${w.pieceId}/${w.says === 'examine' ? '' : w.says === 'choose a route' ? 'route' : 'client'}`"
          class="row block no-underline"
          >{{ w.pieceId }} · {{ w.piece }}<span class="caption block">{{ w.says }}</span></NuxtLink
        >
      </section>
      <section>
        <h2 class="flex items-baseline gap-4">
          {{ w('now.news')
          }}<NuxtLink to="/log" class="underline font-normal text-base min-h-11 inline-flex items-center">{{
            w('log.of')
          }}</NuxtLink>
        </h2>
        <NuxtLink
          v-for="n in bench.news.slice(0, 5)"
          :key="n.says + n.happened_at"
          :to="`/pieces/${n.piece_id}/log`"
          class="row block no-underline"
          >{{ n.says
          }}<span class="caption block">{{ n.piece_id }} · {{ n.piece }}, {{ time(n.happened_at) }}</span></NuxtLink
        >
      </section>
    </div>
  </div>
  <p v-else>{{ w('loading') }}</p>
</template>
