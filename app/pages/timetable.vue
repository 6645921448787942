<script setup lang="ts">
import { dayColumns } from '#core/timetable/axis'

const route = useRoute()
const router = useRouter()
const session = useSession()
const clock = useClock()
const { at } = useMoment()
const { time, day, span, percent } = useFormat()
const asked = computed(() => String(route.query.from ?? ''))
const { data, load, failed } = useLive(
  'GET /api/timetable',
  topic => topic !== 'air',
  () => ({
    query: asked.value ? { from: asked.value } : {},
  }),
)
const set = (more: Record<string, string>) => void router.replace({ query: { ...route.query, ...more } })
const by = computed({
  get: () => LANES.find(l => l === route.query.by) ?? 'people',
  set: (name: (typeof LANES)[number]) => set({ by: name }),
})
const LENGTHS = ['week', 'day'] as const
const long = computed({
  get: () => LENGTHS.find(l => l === route.query.long) ?? 'week',
  set: (name: (typeof LENGTHS)[number]) => set({ long: name }),
})
const days = computed(() => (long.value === 'week' ? 7 : 1))
const columns = computed(() => (data.value ? dayColumns(data.value.hours, data.value.from, days.value) : []))
const lanes = useLanes(data, by)
/** A phone shows one day. */
const isPhone = () => matchMedia('(width < 40rem)').matches
const move = (way: 1 | -1) => {
  const days_n = isPhone() ? way : way * days.value
  set({ from: at(data.value!.from).plus({ days: days_n }).toISODate()! })
}
const isToday = computed(() => at(clock.now).toISODate() === data.value?.from)
const late = computed(() => (data.value?.pieces ?? []).filter(p => p.late))
const unplaced = computed(() => (data.value?.pieces ?? []).filter(p => p.unplaced.length > 0))
const picked = ref<string | null>(null)
const bar = computed(() => data.value?.bars.find(b => b.task === picked.value) ?? null)
/** where a bar was moved to; nothing is held before that is answered */
const moved = ref<Hold | null>(null)
const board = useTemplateRef('board')
function close() {
  picked.value = moved.value = null
  board.value?.back()
}
function changed() {
  close()
  void load()
}
function put(b: Bar, to: Target) {
  const lane = lanes.value[to.lane]?.id ?? null
  moved.value = {
    at: to.start_ms,
    who: by.value === 'people' ? lane : b.personId,
    room: by.value === 'rooms' ? lane : null,
  }
  picked.value = b.task
}
const overloaded = computed(() => {
  const o = data.value?.overload
  if (!o) return ''
  const hours = (h: number) => `${Math.ceil(h)} h`
  const words = { need: hours(o.need_h), there: hours(o.there_h), day: day(o.until_ms) }
  const missing = hours(o.need_h - o.there_h)
  return o.skill
    ? w('timetable.overloadSkill', { ...words, missing, skill: w(`rooms.skill.${o.skill}`) })
    : w('timetable.overload', { ...words, missing })
})
const asking = ref(false)
function taken() {
  asking.value = false
  void anew()
}
/** The search goes on by the clock between two readings of the page. */
const SEARCH_MS = 3000
const read_ms = ref(0)
watch(data, () => (read_ms.value = Date.now()))
const ticking = useNow({ interval: 200 })
const through = computed(() =>
  Math.min(1, (data.value?.searched ?? 0) + Math.max(0, ticking.value.getTime() - read_ms.value) / SEARCH_MS),
)
const stop = () => send('DELETE /api/schedule')
const busy = ref(false)
async function anew() {
  busy.value = true
  await send('POST /api/schedule')
  busy.value = false
  await load()
}
/** On a phone: the day of one line, as a list. */
const lane = ref(0)
watch(by, () => (lane.value = 0))
watch(
  () => lanes.value.length > 0,
  () => (lane.value = Math.max(0, by.value === 'people' ? lanes.value.findIndex(l => l.id === session.person?.id) : 0)),
  { immediate: true },
)
const its = computed(() => {
  const start = data.value ? at(data.value.from).toMillis() : 0
  const own = lanes.value[Math.min(lane.value, lanes.value.length - 1)]
  return (own?.bars ?? []).filter(b => b.start_ms >= start && b.start_ms < start + 86_400_000)
})
const laneOptions = computed(() => lanes.value.map((l, i) => ({ value: i, label: l.name })))
const printPage = () => window.print()
</script>

<template>
  <div>
    <div class="flex flex-wrap items-end gap-3 print:hidden">
      <h1 class="mr-auto">
        {{ w('timetable.title') }}
        <span v-if="data?.made_ms" class="caption font-normal"
          >{{ data.working ? w('timetable.working') : w('timetable.made', { time: time(data.made_ms) })
          }}<template v-if="data.moved && !data.working">
            · {{ w('timetable.moved', { n: data.moved }) }}</template
          ></span
        >
      </h1>
      <RadioField
        v-model="by"
        :label="w('timetable.byWhat')"
        label-hidden
        :options="optionsOf(LANES, l => w(`timetable.by.${l}`))"
      />
      <RadioField
        v-model="long"
        class="max-sm:hidden"
        :label="w('timetable.howLong')"
        label-hidden
        :options="optionsOf(LENGTHS, l => w(`timetable.long.${l}`))"
      />
    </div>
    <PageState v-if="!data" :failed="failed" />
    <template v-else>
      <CannotRead :pieces="data.unreadable" />
      <div class="flex flex-wrap items-center gap-3 my-3 print:hidden">
        <button class="act act-quiet" @click="move(-1)">{{ w('timetable.earlier') }}</button>
        <button class="act act-quiet" :disabled="isToday" @click="set({ from: '' })">{{ w('timetable.today') }}</button>
        <button class="act act-quiet" @click="move(1)">{{ w('timetable.later') }}</button>
        <span class="grow" />
        <button v-if="session.may('work')" class="act act-quiet" :disabled="busy" @click="anew">
          {{ w('timetable.anew') }}
        </button>
        <button class="act act-quiet" @click="asking = true">{{ w('timetable.whatIf') }}</button>
        <a
          :href="`/api/timetable/week${asked ? `?from=${asked}` : ''}`"
          class="act act-quiet no-underline max-sm:hidden"
          download
          >{{ w('timetable.csv') }}</a
        >
        <button class="act act-quiet max-sm:hidden" @click="printPage">{{ w('timetable.print') }}</button>
      </div>
      <div v-if="data.searched !== null" class="flex items-center gap-3 my-3 print:hidden" data-test="searching">
        <ProgressLine class="grow" :label="w('timetable.searching')" :done="through" />
        <button v-if="session.may('work')" class="act act-quiet" @click="stop">{{ w('timetable.stopSearch') }}</button>
      </div>
      <p v-if="!data.made_ms" class="verdict">{{ w('timetable.none') }}</p>
      <p v-if="late.length" class="verdict verdict-warn my-3 print:hidden" data-test="late">
        <strong>{{ w('timetable.lates', { n: late.length }) }}:</strong>
        <NuxtLink v-for="p in late" :key="p.pieceId" :to="`/pieces/${p.pieceId}/plan`" class="block no-underline"
          >{{ p.pieceId }} {{ p.piece }}: {{ w('timetable.late', { day: day(p.ready_ms!), due: day(p.dueOn!) })
          }}<template v-if="p.risk !== null">
            · {{ w('timetable.risk', { percent: percent(p.risk) }) }}</template
          ></NuxtLink
        >
      </p>
      <p v-if="data.overload" class="verdict verdict-warn my-3 print:hidden" data-test="overload">{{ overloaded }}</p>
      <p v-if="data.missed.length" class="verdict verdict-stop my-3 print:hidden" data-test="missed">
        <strong>{{ w('timetable.missed') }}</strong>
        <NuxtLink
          v-for="m in data.missed"
          :key="m.task + m.what"
          :to="`/pieces/${m.pieceId}/plan`"
          class="block no-underline"
          >{{
            w(`timetable.breaks.${m.what}`, { piece: m.pieceId, step: m.says, by: span(m.by_min * 60_000) })
          }}</NuxtLink
        >
      </p>
      <WeekSheet :lanes="lanes" :columns="columns" :table="data" :apart="by !== 'pieces'" />
      <div class="overflow-x-auto max-sm:hidden print:hidden" tabindex="0">
        <TimeBoard
          ref="board"
          :lanes="lanes"
          :columns="columns"
          :now="clock.now"
          :pieces="by === 'pieces'"
          :may-move="session.may('edit-plan')"
          @pick="picked = $event.task"
          @move="put"
          @day="set({ from: $event, long: 'day' })"
        />
      </div>
      <div class="sm:hidden print:hidden">
        <ChoiceField v-model="lane" :label="w(`timetable.by.${by}`)" :options="laneOptions" />
        <p class="caption mt-2">{{ day(data.from) }}</p>
        <button
          v-for="b in its"
          :key="b.task"
          class="row w-full text-left flex gap-3"
          data-test="phone-bar"
          @click="picked = b.task"
        >
          <span class="clock shrink-0">{{ time(b.start_ms) }}</span><span class="grow"
            >{{ b.titles.join(' + ') }}<span class="caption block">{{ b.pieceId }} · {{ time(b.end_ms) }}</span></span
          >
        </button>
        <p v-if="!its.length" class="row">{{ w('timetable.nothing') }}</p>
      </div>
      <TogetherList v-if="data.batches.length" class="mt-6 print:hidden" :table="data" @changed="changed" />
      <section v-if="unplaced.length" class="mt-6 print:hidden" data-test="unplaced">
        <h2>{{ w('timetable.unplaced') }}</h2>
        <div v-for="p in unplaced" :key="p.pieceId" class="row">
          <strong>{{ p.pieceId }} {{ p.piece }}</strong>
          <p v-for="u in p.unplaced.slice(0, 3)" :key="u.says" class="caption">
            {{ u.says }}: {{ w(`timetable.whyNot.${u.why}`) }}
          </p>
        </div>
      </section>
      <BarBox v-if="bar" :bar="bar" :table="data" :moved="moved" @close="close" @changed="changed" />
      <WhatIf v-if="asking" :table="data" @close="asking = false" @taken="taken" />
    </template>
  </div>
</template>
