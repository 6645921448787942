<script setup lang="ts">
/** Questions to the record: figures, and under each the lines that it is made of. */
import { PIECE_KINDS } from '#core/estimate'
import { SPECIES } from '#core/wood'
import { RECORD_TIMES, type RecordTime } from '#shared/schemas'

const session = useSession()
const route = useRoute()
const router = useRouter()
const { money, hours, day } = useFormat()
type Query = Asking<'GET /api/record'>['query']
type Ask = NonNullable<NonNullable<Query>['ask']>
type Narrow = 'time' | 'from' | 'to' | 'kind' | 'wood' | 'finish' | 'person' | 'of'
const inAddress = (name: string) => {
  const value = route.query[name]
  return typeof value === 'string' && value !== '' ? value : null
}
/** What is asked stands in the address, so that it can be kept and sent on. */
const set = (change: Partial<Record<Narrow | 'ask', string | number | null>>) =>
  void router.replace({
    query: Object.fromEntries(
      Object.entries({ ...route.query, of: null, ...change }).filter(([, v]) => v !== null && v !== undefined),
    ) as Record<string, string>,
  })
const ask = computed({ get: () => (inAddress('ask') ?? 'hours') as Ask, set: name => set({ ask: name }) })
const narrowed = <T extends string | number>(name: Narrow, read: (v: string) => T) =>
  computed<T | null>({
    get: () => {
      const value = inAddress(name)
      return value === null ? null : read(value)
    },
    set: value => set({ [name]: value }),
  })
const text = (v: string) => v
const time = computed<RecordTime>({
  get: () => (inAddress('time') ?? page.value?.time ?? 'year') as RecordTime,
  set: t => set({ time: t, from: null, to: null }),
})
const from = narrowed('from', text)
const to = narrowed('to', text)
const kind = narrowed('kind', text)
const wood = narrowed('wood', text)
const finish = narrowed('finish', text)
const person = narrowed('person', Number)
const of = narrowed('of', text)
const query = computed(() => ({
  ...{
    ask: ask.value,
    of: of.value,
    time: inAddress('time') as null,
    from: from.value,
    to: to.value,
    kind: kind.value as null,
  },
  ...{ wood: wood.value, finish: finish.value, person: person.value },
}))
const { data: page, failed } = useLive(
  'GET /api/record',
  topic => topic === 'piece' || topic === 'store',
  () => ({ query: query.value }),
)
const withAll = <T extends string | number>(options: readonly Option<T>[]): Option<T | null>[] => [
  { value: null, label: w('record.all') },
  ...options,
]
const woodOf = (slug: string) => SPECIES.find(s => s.slug === slug)?.name ?? slug
const said = (g: { of: string; says: string | null }): string => {
  if (g.says !== null) return page.value?.by === 'month' ? monthOf(g.of) : g.says
  if (page.value?.by === 'cause') return w(`record.of.${g.of as 'answer'}`)
  if (page.value?.by === 'finding') return w(`finding.${g.of as 'runs'}`)
  return g.of === 'other' ? w('record.of.kind') : w(`enquiry.kinds.${g.of as 'table'}`)
}
const monthOf = (month: string) =>
  new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(new Date(`${month}-01`))
const figure = (n: number | null) => {
  if (n === null) return '–'
  switch (page.value?.unit) {
    case 'min':
      return hours(n)
    case 'ml':
      return n >= 1000 ? `${(n / 1000).toFixed(2)} l` : `${Math.round(n)} ml`
    case 'money':
      return money(n)
    case 'percent':
      return `${Math.round(n)} %`
    default:
      return String(Math.round(n))
  }
}
const percent = (g: { really: number; n: number }) => Math.round((100 * g.really) / g.n)
const YES = { promises: 'kept', gates: 'failed', lasts: 'back' } as const
const yes = computed(() => w(`record.${YES[ask.value as 'gates'] ?? 'real'}`))
const asPlanned = computed(() => {
  if (ask.value === 'cost') return w('record.agreed')
  return w(ask.value === 'earned' ? 'record.rate' : 'record.planned')
})
const wordOf = (line: { word: string | number; really: number }): string => {
  const n = Number(line.word)
  if ((ask.value === 'promises' || ask.value === 'missed') && n > 0) return w('record.daysLate', { n })
  if (ask.value === 'lasts' && line.really && line.word !== '') return w('record.after', { n })
  return ask.value === 'promises' || ask.value === 'lasts' ? '' : String(line.word)
}
/** So many stand in the chart, and below it before more are asked for. */
const FIRST = 14
const whole = ref(false)
/** Bars in a unit that the eye reads: hours, litres, whole money, percent. */
const drawn = computed(() => {
  const p = page.value
  if (!p) return null
  const shown = p.groups.slice(0, FIRST)
  const says = shown.map(said)
  if (p.as === 'share')
    return { says, unit: `${yes.value}, %`, most: 100, series: [{ label: yes.value, values: shown.map(percent) }] }
  const per = { min: 60, ml: 1000, money: 100, percent: 1, none: 1 }[p.unit]
  const unit = { min: 'h', ml: 'l', money: session.shop?.currency ?? '', percent: '%', none: '' }[p.unit]
  const planned = shown.map(g => (p.as === 'range' ? (g.planned ?? 0) / g.n : (g.planned ?? 0)) / per)
  const real = shown.map(g => (p.as === 'range' ? g.mean : g.really) / per)
  const label = p.as === 'range' ? w('record.mean') : w('record.real')
  return {
    ...{ says, unit, most: undefined },
    series: [
      ...(planned.some(v => v > 0) ? [{ label: asPlanned.value, values: planned }] : []),
      { label, values: real.map(v => Math.max(0, v)) },
    ],
  }
})
const toggle = (name: string) => set({ of: of.value === name ? null : name })
const csv = computed(() => pathOf('GET /api/record/list', { query: { ...query.value, of: null } }))
</script>

<template>
  <div class="grid lg:grid-cols-[20rem_1fr] gap-x-10 gap-y-4">
    <section class="grid gap-3 content-start">
      <ChoiceField
        v-if="page"
        v-model="ask"
        :label="w('record.ask')"
        :options="optionsOf(page.questions, q => w(`record.asks.${q}`))"
      />
      <template v-if="page">
        <ChoiceField
          v-model="time"
          :label="w('record.time')"
          :options="optionsOf(RECORD_TIMES, t => w(`record.times.${t}`))"
        />
        <template v-if="time === 'between'">
          <DateField v-model="from" :label="w('record.from')" />
          <DateField v-model="to" :label="w('record.to')" />
        </template>
        <ChoiceField
          v-model="kind"
          :label="w('record.kind')"
          :options="withAll(optionsOf(PIECE_KINDS, k => w(`enquiry.kinds.${k}`)))"
        />
        <ChoiceField v-model="wood" :label="w('record.wood')" :options="withAll(optionsOf(page.woods, woodOf))" />
        <ChoiceField v-model="finish" :label="w('record.finish')" :options="withAll(namedOptions(page.finishes))" />
        <ChoiceField v-model="person" :label="w('record.person')" :options="withAll(namedOptions(page.people))" />
      </template>
      <NuxtLink to="/faults" class="underline min-h-11 content-center">{{ w('record.learnt') }}</NuxtLink>
    </section>
    <section v-if="!page">
      <PageState :failed="failed" />
      <!-- an address that was typed, or kept from long ago, is no dead end -->
      <NuxtLink v-if="failed" to="/shop?part=record" class="underline min-h-11 content-center">{{
        w('record.anew')
      }}</NuxtLink>
    </section>
    <section v-else class="min-w-0" data-test="record">
      <h1>{{ w(`record.asks.${page.ask}`) }}</h1>
      <p class="caption">{{ w(`record.how.${page.ask}`) }}</p>
      <p v-if="!page.groups.length" class="mt-3">{{ w('record.nothing') }}</p>
      <template v-else-if="drawn">
        <ClientOnly>
          <RecordChart v-bind="drawn" @open="i => toggle(page!.groups[i]!.of)" />
        </ClientOnly>
        <div
          v-for="g in whole ? page.groups : page.groups.slice(0, FIRST)"
          :key="g.of"
          class="row !py-0.5"
          data-test="record-group"
        >
          <button
            class="w-full min-h-11 flex flex-wrap gap-x-4 items-center text-left"
            :aria-expanded="of === g.of"
            @click="toggle(g.of)"
          >
            <FieldMark :open="of === g.of" /><span class="grow">{{ said(g) }}</span>
            <span v-if="page.as === 'share'" class="clock">{{
              w('record.share', { yes: g.really, all: g.n, percent: percent(g) })
            }}</span>
            <template v-else-if="page.as === 'range'">
              <span class="caption">{{ w('record.lines', { n: g.n }) }}</span>
              <span class="clock"
                ><template v-if="g.n > 1">{{ figure(g.least) }} · </template><strong>{{ figure(g.mean) }}</strong
                ><template v-if="g.n > 1"> · {{ figure(g.most) }}</template></span
              >
            </template>
            <span v-else class="clock"
              ><template v-if="g.planned !== null"
                >{{ figure(g.planned) }} <span class="caption">{{ w('record.planned') }}</span> ·
              </template>
              <strong>{{ figure(g.really) }}</strong></span
            >
          </button>
          <div v-if="of === g.of && page.lines" class="pl-6 pb-2" data-test="record-lines">
            <p v-for="(l, i) in page.lines" :key="i" class="flex flex-wrap gap-x-3 py-1 border-t border-hair">
              <span class="grow min-w-0"
                ><NuxtLink v-if="l.piece_id" :to="`/pieces/${l.piece_id}/plan`" class="underline"
                  >{{ l.piece_id }} · {{ l.piece }}</NuxtLink
                >
                {{ l.what }}<span v-if="wordOf(l)" class="caption"> {{ wordOf(l) }}</span></span
              >
              <span class="caption">{{ day(l.at) }}</span>
              <span v-if="page.as !== 'share' && page.unit !== 'none'" class="clock"
                ><template v-if="l.planned !== null">{{ figure(l.planned) }} · </template
                ><strong>{{ figure(l.really) }}</strong></span
              >
              <strong v-else-if="page.as === 'share'" class="clock">{{ l.really ? yes : '' }}</strong>
            </p>
            <p v-if="page.lines.length < g.n" class="caption">
              {{ w('record.newest', { n: page.lines.length, all: g.n }) }}
            </p>
          </div>
        </div>
        <MoreLines v-model="whole" :n="page.groups.length - FIRST" />
        <p v-if="page.as === 'range' && page.groups.some(g => g.n > 1)" class="caption">
          {{ w('record.least') }} · {{ w('record.mean') }} · {{ w('record.most') }}
        </p>
        <a class="underline min-h-11 inline-flex items-center" :href="csv">{{ w('record.csv') }}</a>
      </template>
    </section>
  </div>
</template>
