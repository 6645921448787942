<script setup lang="ts">
import type { RouteSlug } from '#core/piece'
import { inHand, type Spell } from '#core/timetable/spells'
import type { ActTarget, StepLine } from '~/composables/bench'
import type { PlainKey } from '~/utils/words'

/** What a step takes at the bench: start, done, put aside, hand on, note, dry or not, take back; now or minutes ago. */
const props = defineProps<{
  step: ActTarget & {
    kind: string
    pieceId: number
    product?: string | null
    productId?: number | null
    recipe?: string | null
    /** its product is mixed from two parts, or sets in its pot */
    potted?: boolean
    amount_ml?: number | null
    gate?: { look: string; fails: string; fallback: RouteSlug | null } | null
    passTest?: string | null
    on?: readonly { id: number; name: string }[]
    sections?: StepLine['sections']
    measures?: StepLine['measures']
    seen?: StepLine['seen']
    spells?: readonly Spell[]
  }
  state: 'planned' | 'running' | 'done'
  may?: boolean
  /** dusty work that may start where it is carried outside */
  outside?: boolean
  waits?: boolean
  /** done, and later work stands on it */
  settled?: boolean
}>()
const session = useSession()
const asking = ref<number | null>(null)
const open = ref<'hands' | 'note' | 'dry' | null>(null)
const busy = ref(false)
/** The menu is fetched when it is first asked for: a page of steps is there sooner without. */
const menu = ref<'asked' | 'there' | null>(null)
type Timed = 'start' | 'finish' | 'pause' | 'go-on'
const held = computed(() => inHand(props.step.spells ?? []))
const aside = computed(() => props.state === 'running' && props.step.spells !== undefined && held.value.length === 0)
async function act(...[kind, ...rest]: [Parameters<typeof actAtBench>[0], number?, Record<string, unknown>?]) {
  busy.value = true
  await actAtBench(kind, props.step, ...rest)
  busy.value = false
}
async function go(kind: Timed, ago = 0, measured = false) {
  const { product, gate, passTest, seen } = props.step
  if (kind === 'finish' && (measured || product || gate || passTest || seen?.length)) asking.value = ago
  else await act(kind, ago)
}
/** What the next touch does to a section, while the step runs in sections. */
const section = computed(() => {
  const s = props.state === 'running' ? (props.step.sections ?? null) : null
  if (s?.next && (s.takes || s.wipes)) return { what: 'off' as const, no: s.next.no, of: s.count }
  if (s && !s.takes && s.laid < s.count) return { what: 'on' as const, no: s.laid + 1, of: s.count }
  return null
})
/** The one touch that this state asks for. */
const main = computed((): Timed => {
  if (props.state !== 'running') return 'start'
  return aside.value ? 'go-on' : 'finish'
})
/** Acts that may have happened some minutes ago. */
const timed = computed((): Timed[] => {
  if (props.state === 'running') return aside.value ? ['finish', 'go-on'] : ['finish', 'pause']
  return props.may ? ['start'] : []
})
interface Item {
  word: PlainKey
  when: boolean
  act: () => unknown
}
const items = computed(() => {
  const running = props.state === 'running'
  const s = props.step.sections
  const all: Item[] = [
    { word: 'bench.pause', when: running && !aside.value, act: () => act('pause') },
    { word: 'bench.finish', when: aside.value, act: () => go('finish') },
    { word: 'bench.hands', when: running, act: () => (open.value = 'hands') },
    { word: 'bench.startOutside', when: Boolean(props.may && props.outside), act: () => startOutside() },
    {
      word: 'bench.measure',
      when: running && Boolean(props.step.measures?.numbers.length),
      act: () => go('finish', 0, true),
    },
    { word: 'bench.mixed', when: props.state !== 'done' && Boolean(props.step.potted), act: () => act('mixed') },
    {
      word: 'bench.section.back',
      when: running && Boolean(s && s.laid + s.off > 1),
      act: () => act('section', 0, { what: 'back' }),
    },
    {
      word: 'bench.dryOrNot',
      when: props.state === 'planned' && Boolean(props.waits),
      act: () => (open.value = 'dry'),
    },
    {
      word: 'fault.see',
      when: props.state !== 'planned',
      act: () => navigateTo(`/pieces/${props.step.pieceId}/faults?step=${props.step.stepId}`),
    },
    { word: 'bench.note', when: true, act: () => (open.value = 'note') },
    { word: 'bench.undo', when: props.state !== 'planned' && !props.settled, act: () => act('undo') },
  ]
  return all.filter(i => i.when)
})
const startOutside = () => act('start', 0, { outside: true })
const can = computed(() => session.may('work'))
const joined = computed(() => Boolean(props.state === 'running' || props.may || props.outside))
</script>

<template>
  <span v-if="can" data-acts class="inline-flex flex-wrap justify-end gap-x-2 gap-y-1">
    <button
      v-if="section"
      class="act whitespace-nowrap"
      :disabled="busy"
      data-test="section"
      @click="act('section', 0, { what: section.what })"
    >
      {{ w(`bench.section.${section.what}`, { no: section.no, of: section.of }) }}
    </button>
    <span class="inline-flex items-stretch">
      <button
        v-if="state === 'running' || (state === 'planned' && may)"
        class="act min-w-24 !rounded-r-none whitespace-nowrap"
        :class="section ? 'act-quiet' : ''"
        :disabled="busy"
        @click="go(main)"
      >
        {{ w(`bench.${main}`) }}
      </button>
      <button
        v-else-if="outside"
        class="act min-w-24 !rounded-r-none whitespace-nowrap"
        :disabled="busy"
        data-test="start-outside"
        @click="startOutside"
      >
        {{ w('bench.startOutside') }}
      </button>
      <button
        v-if="menu !== 'there'"
        class="act act-quiet !px-3"
        :class="joined ? '!rounded-l-none' : ''"
        :aria-label="w('bench.more', { title: step.title })"
        aria-haspopup="menu"
        aria-expanded="false"
        @click="menu ??= 'asked'"
      >
        ⋯</button
      ><LazyBenchMenu
        v-if="menu"
        :label="w('bench.more', { title: step.title })"
        :joined="joined"
        :timed="timed"
        :items="items"
        @ready="menu = 'there'"
        @ago="go"
      />
    </span>
    <LazyFinishDialog v-if="asking !== null" :step="step" :ago="asking" @close="asking = null" />
    <LazyHandsDialog v-if="open === 'hands'" :step="step" :held="held" @close="open = null" />
    <LazyNoteDialog v-if="open === 'note'" :step="step" @close="open = null" />
    <LazyDryDialog v-if="open === 'dry'" :step="step" @close="open = null" />
  </span>
</template>
