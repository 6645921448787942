<script setup lang="ts">
import type { Window } from '#core/timetable'
import type { PlainKey } from '~/utils/words'

const bench = inject(BENCH)!
const clock = useClock()
const { time, day, span, hours } = useFormat()
const HOUR = 3_600_000

const drawn = computed((): readonly [number, number] => {
  const now = clock.now
  const open = bench.value?.open
  const from = Math.max(Math.floor((now - 2 * HOUR) / HOUR) * HOUR, open ? Math.floor(open[0] / HOUR) * HOUR : 0)
  return [from, Math.max(now + 3 * HOUR, (bench.value?.closing_ms ?? now) + HOUR)]
})
const marks = computed(() => {
  const [from, to] = drawn.value
  const step = to - from > 10 * HOUR ? 2 * HOUR : HOUR
  const list = []
  for (let at = Math.ceil(from / step) * step; at < to; at += step) list.push({ at, x: (at - from) / (to - from) })
  return list
})
const nowX = computed(() => (clock.now - drawn.value[0]) / (drawn.value[1] - drawn.value[0]))
function left(w: WindowLine): { word: PlainKey; value: string; colour: string } {
  const now = clock.now
  if (w.opens_ms === null) return { word: 'now.runs', value: span(now - w.start_ms), colour: 'text-slate' }
  if (w.closes_ms !== null && now > w.closes_ms)
    return { word: 'now.closed', value: time(w.closes_ms), colour: 'text-madder' }
  if (now < w.opens_ms && w.closes_ms !== null && w.closes_ms - now < 30 * 60_000)
    return { word: 'now.opensIn', value: span(w.opens_ms - now), colour: 'text-ochre' }
  if (now < w.opens_ms)
    return w.opens_ms - now > 18 * HOUR
      ? { word: 'now.opens', value: day(w.opens_ms), colour: '' }
      : { word: 'now.opensIn', value: span(w.opens_ms - now), colour: '' }
  if (w.closes_ms !== null)
    return {
      word: 'now.closesIn',
      value: span(w.closes_ms - now),
      colour: w.closes_ms - now < 30 * 60_000 ? 'text-ochre' : 'text-verdigris',
    }
  return {
    word: w.safe_ms !== null && now < w.safe_ms ? 'now.tryIt' : 'now.open',
    value: w.safe_ms !== null && now < w.safe_ms ? time(w.safe_ms) : span(now - w.opens_ms),
    colour: 'text-verdigris',
  }
}
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
const windows = computed(() => (bench.value?.windows ?? []).slice(0, 12))
/** Windows and mixed pots together, by what closes first. */
const rows = computed(() => {
  const list: { w: WindowLine | null; p: BenchNow['pots'][number] | null }[] = windows.value.map(w => ({ w, p: null }))
  for (const p of bench.value?.pots ?? []) {
    const at = list.findIndex(({ w, p: other }) => (w ? (w.closes_ms ?? Infinity) : other!.ends_ms) > p.ends_ms)
    list.splice(at < 0 ? list.length : at, 0, { w: null, p })
  }
  return list
})
const alsoMay = (w: WindowLine) => bench.value?.may.find(s => s.stepId === w.step.stepId)
</script>

<template>
  <div v-if="bench">
    <h1 class="sr-only">{{ w('rail.now') }}</h1>
    <CannotRead :pieces="bench.unreadable" />
    <section v-if="rows.length" :aria-label="w('now.windows')">
      <div class="grid md:grid-cols-[minmax(13rem,18rem)_1fr_9rem] gap-x-4 items-end caption clock">
        <h2 class="text-ink">{{ w('now.windows') }}</h2>
        <div class="relative h-7 max-md:hidden">
          <span
            v-for="m in marks"
            :key="m.at"
            class="absolute bottom-1 -translate-x-1/2"
            :style="{ left: `${m.x * 100}%`, opacity: Math.abs(m.x - nowX) < 0.06 ? 0 : 1 }"
            >{{ time(m.at) }}</span
          >
          <span
            class="absolute bottom-0 -translate-x-1/2 bg-ink text-sheet px-2 py-0.5"
            :style="{ left: `${nowX * 100}%` }"
            >{{ time(clock.now) }}</span
          >
        </div>
        <span />
      </div>
      <template v-for="{ w: line, p } in rows" :key="line ? `${line.pieceId}${line.from}${line.to}` : `pot${p!.id}`">
        <div v-if="line" class="window-row" data-test="window">
          <NuxtLink :to="`/pieces/${line.pieceId}/plan`" class="no-underline leading-snug">
            <strong class="block">{{ line.step.title }}</strong>
            <span v-if="line.section" class="block">{{
              w('now.section', { no: line.section, of: line.step.sections?.count ?? line.section })
            }}</span>
            <span class="caption">{{ line.pieceId }} · {{ line.piece }} · {{ line.step.faces }}</span>
          </NuxtLink>
          <WindowBar
            class="max-md:order-3 max-md:col-span-2"
            :window="line"
            :span="drawn"
            :now="clock.now"
            :closing="bench.closing_ms"
            :label="`${line.step.title}: ${w(left(line).word)} ${left(line).value}`"
          />
          <span class="text-right leading-tight"
            ><span class="caption block">{{ w(left(line).word) }}</span
            ><strong class="text-xl clock" :class="left(line).colour">{{ left(line).value }}</strong></span
          >
        </div>
        <NuxtLink v-else-if="p" :to="`/mixing/${p.id}`" class="window-row no-underline" data-test="pot-window">
          <span class="leading-snug"
            ><strong class="block">{{ w('mix.pot', { id: p.id }) }} {{ p.name }}</strong
            ><span class="caption">{{ p.piece }}</span></span
          >
          <WindowBar
            class="max-md:order-3 max-md:col-span-2"
            :window="potWindow(p)"
            :span="drawn"
            :now="clock.now"
            :closing="bench.closing_ms"
            :label="`${p.name}: ${w('mix.useBy', { at: time(p.ends_ms) })}`"
          />
          <span class="text-right leading-tight"
            ><span class="caption block">{{ w(clock.now > p.ends_ms ? 'now.potOver' : 'now.potEnds') }}</span
            ><strong
              class="text-xl clock"
              :class="
                clock.now > p.ends_ms
                  ? 'text-madder'
                  : p.ends_ms - clock.now < 30 * 60_000
                    ? 'text-ochre'
                    : 'text-verdigris'
              "
              >{{ clock.now > p.ends_ms ? time(p.ends_ms) : span(p.ends_ms - clock.now) }}</strong
            ></span
          >
        </NuxtLink>
      </template>
    </section>

    <div class="grid lg:grid-cols-[1fr_24rem] gap-x-10 gap-y-8 mt-6">
      <div class="grid gap-6 content-start">
        <section v-if="bench.running.length">
          <h2>{{ w('now.running') }}</h2>
          <div
            v-for="s in bench.running"
            :key="s.stepId"
            class="row flex flex-wrap items-center gap-x-4 gap-y-2"
            data-test="running"
          >
            <div class="grow basis-48">
              <strong>{{ s.title }}</strong><span class="caption block"
                >{{ s.pieceId }} · {{ s.piece }} · {{ s.startedBy }}, {{ time(s.started_ms) }}</span
              ><span v-if="s.sections?.next" class="block" data-test="section-clock">{{
                w('now.sectionOff', {
                  no: s.sections.next.no,
                  from: time(s.sections.next.opens_ms),
                  to: time(s.sections.next.closes_ms),
                })
              }}</span>
            </div>
            <span class="clock text-lg"
              >{{ span(clock.now - s.started_ms) }}<span class="caption"> / {{ hours(s.attended_min) }}</span></span
            >
            <BenchAct :step="s" state="running" />
          </div>
        </section>
        <section>
          <h2>{{ w('now.may') }}</h2>
          <p v-if="!bench.may.length" class="row">
            {{
              bench.open
                ? w('now.nothing')
                : w('now.shut', { at: `${day(bench.nextOpen_ms)} ${time(bench.nextOpen_ms)}` })
            }}
          </p>
          <div
            v-for="s in bench.may"
            :key="s.stepId"
            class="row flex flex-wrap items-center gap-x-4 gap-y-2"
            data-test="may"
          >
            <div class="grow basis-48">
              <NuxtLink :to="`/pieces/${s.pieceId}/plan`" class="no-underline"
                ><strong>{{ s.title }}</strong></NuxtLink
              >
              <span class="caption block"
                >{{ s.pieceId }} · {{ s.piece }} · {{ s.faces
                }}<span v-if="s.keeps.length" class="text-ochre">
                  · {{ w('plan.keeps', { marks: s.keeps.join(', ') }) }}</span
                ><span v-if="s.latest_ms" class="text-ochre">
                  · {{ w('now.before', { at: time(s.latest_ms) }) }}</span
                ></span
              >
              <span v-for="says in s.warnings" :key="says" class="caption block text-ochre">{{ says }}</span>
              <CautionLine :cautions="s.cautions" />
            </div>
            <span class="clock whitespace-nowrap">{{ hours(s.attended_min) }}</span>
            <BenchAct
              :step="s"
              state="planned"
              :may="s.inside"
              :outside="s.outside"
              :waits="windows.some(w => w.step.stepId === s.stepId && alsoMay(w))"
            />
          </div>
        </section>
        <section v-if="bench.mustNot.length">
          <h2>{{ w('now.mustNot') }}</h2>
          <div v-for="s in bench.mustNot" :key="s.stepId" class="row" data-test="must-not">
            <NuxtLink :to="`/pieces/${s.pieceId}/plan`" class="no-underline"
              ><strong>{{ s.title }}</strong></NuxtLink
            >{{ ' ' }}
            <span class="caption">{{ s.pieceId }} · {{ s.piece }}</span>
            <p class="verdict verdict-stop mt-1">{{ s.says }}</p>
          </div>
        </section>
      </div>
      <div class="grid gap-6 content-start">
        <section v-if="bench.became.length">
          <h2>{{ w('now.became') }}</h2>
          <NuxtLink
            v-for="b in bench.became.slice(0, 6)"
            :key="b.pieceId + b.title"
            :to="`/pieces/${b.pieceId}/plan`"
            class="row block no-underline"
            ><strong>{{ b.title }}</strong
            ><span class="caption block"
              >{{ b.pieceId }} · {{ b.piece }}, {{ w('now.since', { at: time(b.since_ms) }) }}</span
            ></NuxtLink
          >
        </section>
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
        <section v-if="bench.news.length">
          <h2>{{ w('now.news') }}</h2>
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
  </div>
  <p v-else>{{ w('loading') }}</p>
</template>
