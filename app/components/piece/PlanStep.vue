<script setup lang="ts">
import { GripVertical } from '@lucide/vue'
import type { Choice } from '#core/build'
import type { Context } from '#core/context'
import { MATERIALS, taken } from '#core/materials'
import { blocks } from '#core/safety'
import { inHand, worked_min } from '#core/timetable'

/**
 * One step of a plan: what it is, why, how it is done, what speaks against it; changed here as long as it has not
 * started.
 */
const props = defineProps<{
  step: PlanPage['steps'][number]
  plan: PlanPage
  context: Context | null
  open: boolean
  /** may be changed, may be worked on */
  can: boolean
  works: boolean
  last: boolean
}>()
const emit = defineEmits<{
  toggle: []
  change: [body: Record<string, unknown>]
  remove: []
  split: [faces: number[]]
  move: [by: number]
  add: []
  mend: [rule: string]
  overrule: [rule: string, word: string]
}>()
const { hours, amount, dayTime } = useFormat()
const clock = useClock()
const s = computed(() => props.step)
const verdicts = computed(() => props.plan.verdicts.filter(v => v.step === s.value.key))
const dries = computed(() => props.plan.waits.some(w => w.to === s.value.key && (w.min > 0 || w.max !== null)))
const loop = computed(() => props.plan.loops.find(l => l.step === s.value.key))
const pieceId = Number(useRoute().params.id)
const target = computed(() => ({
  stepId: s.value.id,
  rowVersion: s.value.rowVersion,
  title: s.value.title,
  kind: s.value.kind,
  product: s.value.product,
  productId: s.value.productId,
  recipe: s.value.fields.recipe ?? null,
  potted: potted.value,
  amount_ml: s.value.amount_ml,
  gate: s.value.gate,
  key: s.value.key,
  pieceId,
  passTest: s.value.passTest,
  on: names.value,
  sections: s.value.sections,
  measures: s.value.measures,
  seen: s.value.seen,
  spells: s.value.spells,
}))
const held = computed(() => inHand(s.value.spells).map(h => h.by))
const movable = computed(() => props.can && s.value.state === 'planned' && s.value.kind !== 'approval')
const choice = computed(() => props.plan.choice as unknown as Choice)
/** What it takes: by the label of the shop's own product, once that is known, else by its class. */
const material = computed(() =>
  props.context ? taken(props.context.shelf, s.value) : (MATERIALS.find(m => m.slug === s.value.product) ?? null),
)
const airNeed = computed(() => material.value?.air ?? null)
const potted = computed(() => Boolean(material.value?.potLife_min))
const words = ref<Record<string, string>>({})
const apart = ref<number[] | null>(null)
const names = computed(() => s.value.faces.map((id, i) => ({ id, name: s.value.faceNames[i]! })))
/** Which faces, where it is not done on all that are worked. */
const some = computed(() =>
  props.step.faces.length < Math.max(...props.plan.steps.map(x => x.faces.length))
    ? props.step.faceNames.join(' · ')
    : '',
)
const mark = {
  planned: 'border-l-transparent',
  running: 'border-l-verdigris',
  done: 'border-l-moss',
  skipped: 'border-l-line',
} as const
function keys(event: KeyboardEvent) {
  if (!movable.value || !event.altKey || !['ArrowUp', 'ArrowDown'].includes(event.key)) return
  event.preventDefault()
  emit('move', event.key === 'ArrowUp' ? -1 : 1)
}
function split(faces: number[]) {
  emit('split', faces)
  apart.value = null
}
</script>

<template>
  <li
    :id="`step-${s.key}`"
    class="bg-sheet border-l-[5px] px-4 py-2 my-0.5"
    :class="[mark[s.state], s.state === 'skipped' ? 'text-soft line-through' : '', movable ? 'movable' : '']"
    data-test="step"
    :data-key="s.key"
    :data-kind="s.kind"
    :data-coat="s.coat"
    :data-state="s.state"
    :data-id="s.id"
    @keydown="keys"
  >
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <button
        v-if="movable"
        type="button"
        class="grip -ml-2 min-h-12 w-8 flex items-center justify-center text-soft cursor-grab touch-none"
        :aria-label="w('plan.grip', { step: s.title })"
      >
        <GripVertical :size="20" aria-hidden="true" />
      </button>
      <button class="grow basis-48 text-left min-h-12" :aria-expanded="open" @click="emit('toggle')">
        <strong class="font-semibold">{{ s.title }}</strong><span v-if="s.typed.length" class="caption">
          · {{ w('plan.byHand') }}</span
        >
        <span v-if="some" class="caption block">{{ some }}</span>
        <span v-if="s.keeps.length && s.state !== 'done'" class="block text-ochre" data-test="keeps">{{
          w('plan.keeps', { marks: s.keeps.join(', ') })
        }}</span>
        <span v-if="s.state === 'done'" class="caption block"
          >{{ s.gateResult ? w(`plan.${s.gateResult}`) : w('plan.done') }} {{ s.finishedBy ?? '' }}
          {{ dayTime(s.finished_ms!) }}
          <span v-if="s.usedSaid" class="block" data-test="used-said">{{ s.usedSaid }}</span><span
            v-if="s.measuredSaid"
            class="block"
            data-test="measured"
            >{{ s.measuredSaid }}</span
          ></span
        >
        <span v-else-if="s.state === 'running'" class="caption block text-verdigris"
          >{{ held.length ? w('plan.inHandOf', { names: held.join(', ') }) : w('plan.aside') }},
          {{ hours(worked_min(s.spells, clock.now)) }}{{ s.outside ? `, ${w('now.outside')}` : '' }}</span
        >
        <span v-else-if="s.start.latest_ms !== null && s.start.may" class="caption block text-ochre">{{
          w('now.before', { at: dayTime(s.start.latest_ms) })
        }}</span>
      </button>
      <span class="clock text-right whitespace-nowrap"
        >{{ s.attended_min ? hours(s.attended_min) : ''
        }}<span v-if="s.amount_ml" class="caption block">{{ amount(s.amount_ml) }}</span></span
      >
      <BenchAct
        v-if="
          works &&
          s.kind !== 'approval' &&
          (s.state === 'running' ||
            (s.state === 'planned' &&
              (s.start.may ||
                s.start.outside ||
                (potted && s.start.refusals.every(r => r.code === 'rule')) ||
                (dries && s.start.refusals.some(r => r.code === 'too-early')))))
        "
        :step="target"
        :state="s.state === 'running' ? 'running' : 'planned'"
        :may="s.start.may"
        :outside="s.start.outside"
        waits
      />
      <BenchAct
        v-else-if="works && s.kind !== 'approval'"
        :step="target"
        :state="s.state === 'done' ? 'done' : 'planned'"
        :settled="!last"
      />
      <NuxtLink
        v-if="s.kind === 'approval' && s.state === 'planned'"
        :to="`/pieces/${$route.params.id}/client`"
        class="act no-underline"
        >{{ w('plan.ask') }}</NuxtLink
      >
    </div>
    <NuxtLink
      v-if="s.gateResult === 'fail'"
      class="underline min-h-11 inline-flex items-center"
      :to="`/pieces/${$route.params.id}/faults?step=${s.id}`"
      data-test="why-failed"
      >{{ w('fault.why') }}</NuxtLink
    >
    <CautionLine v-if="s.state !== 'done' && (s.start.may || open || s.state === 'running')" :cautions="s.cautions" />
    <div
      v-for="v in verdicts"
      :key="v.rule"
      class="verdict my-2"
      :class="blocks(v) ? 'verdict-stop' : ''"
      data-test="verdict"
      :data-rule="v.rule"
    >
      <strong>{{ w(`severity.${v.severity}`) }}: {{ v.says }}.</strong> {{ v.reason }}
      <em class="not-italic text-verdigris font-semibold">{{ v.mend }}</em>
      <button
        v-if="can && v.oneTouch && !v.overruled"
        class="act act-quiet my-1 flex!"
        data-test="mend"
        @click="emit('mend', v.rule)"
      >
        {{ v.oneTouch }}
      </button>
      <span class="caption block">{{ v.source }}</span>
      <span v-if="v.overruled" class="block"
        >{{ w('plan.overruled', { by: v.overruled.by }) }}: {{ v.overruled.word }}</span
      >
      <span v-else-if="v.mayOverrule" class="flex gap-2 mt-1"
        ><input
          v-model="words[v.rule]"
          class="field"
          :placeholder="w('plan.word')"
          :aria-label="w('plan.word')"
        /><button class="act act-stop" @click="emit('overrule', v.rule, words[v.rule] ?? '')">
          {{ w('plan.overrule') }}
        </button></span
      >
    </div>
    <div v-if="open" class="pb-3 grid gap-3">
      <p>{{ s.why[0]!.toUpperCase() + s.why.slice(1) }}.</p>
      <p v-if="s.gate" data-test="criteria">
        {{ s.gate.look }} <strong class="font-semibold">{{ w('bench.failsWhen') }}</strong> {{ s.gate.fails }}
      </p>
      <StepTimes
        v-if="s.state === 'running' || s.state === 'done'"
        :step="target"
        :spells="s.spells"
        :can="can"
        :running="s.state === 'running'"
      />
      <p v-if="s.pictures.length" class="flex flex-wrap gap-2" data-test="step-pictures">
        <a v-for="a in s.pictures" :key="a" :href="`/api/photographs/${a}`" target="_blank">
          <img :src="`/api/photographs/${a}?size=thumb`" class="h-24" :alt="w('examine.photograph')" />
        </a>
      </p>
      <ul v-if="s.notes.length" class="list-disc pl-5" data-test="notes">
        <li v-for="n in s.notes" :key="n">{{ n }}</li>
      </ul>
      <p v-if="loop" data-test="loop">
        {{ w('plan.loop', { n: loop.rounds, worst: loop.worst, passes: loop.passes }) }}
      </p>
      <SandTable
        v-if="s.kind === 'sand' && context"
        :step="s"
        :context="context"
        :choice="choice"
        :steps="plan.steps"
        :can="movable"
        @grits="emit('change', { grits: $event })"
      />
      <p class="caption">
        {{ s.faceNames.join(' · ') }}
      </p>
      <p v-if="s.spread && s.amount_ml" class="row flex flex-wrap items-center gap-x-4" data-test="spread">
        <span class="grow">{{
          w('plan.spread', {
            n: s.spread.n,
            mean: Math.round(100 * s.spread.mean),
            least: Math.round(100 * s.spread.least),
            most: Math.round(100 * s.spread.most),
          })
        }}</span>
        <button
          v-if="can && !s.typed.includes('amount_ml')"
          class="act act-quiet"
          @click="emit('change', { amountMl: Math.ceil(s.amount_ml * s.spread.mean) })"
        >
          {{ w('plan.spreadTake', { amount: amount(s.amount_ml * s.spread.mean) }) }}
        </button>
      </p>
      <StepFigures v-if="s.attended_min" :step="s" :material="material" :pace="context?.facts.pace ?? null" />
      <StepPot
        v-if="s.fields.recipe"
        :recipe="s.fields.recipe"
        :amount-ml="s.amount_ml"
        :piece-id="pieceId"
        :can="can && s.state !== 'done'"
      />
      <AirHours
        v-if="material && airNeed && s.state === 'planned'"
        :material="material"
        :ahead="plan.ahead"
        :air="plan.airNow"
        :now="plan.now_ms"
      />
      <p v-for="says in s.state === 'planned' && s.start.may ? s.start.warnings : []" :key="says" class="text-ochre">
        {{ says }}
      </p>
      <p v-for="r in s.state === 'planned' ? s.start.refusals : []" :key="r.says">{{ r.says }}</p>
      <template v-if="movable">
        <StepEditor
          v-if="context"
          :step="s"
          :plan="plan"
          :context="context"
          :choice="choice"
          @save="emit('change', $event)"
        />
        <div class="flex flex-wrap gap-2">
          <button type="button" class="act act-quiet" @click="emit('move', -1)">{{ w('plan.up') }}</button>
          <button type="button" class="act act-quiet" @click="emit('move', 1)">{{ w('plan.down') }}</button>
          <button
            v-if="s.faces.length > 1"
            type="button"
            class="act act-quiet"
            :aria-expanded="apart !== null"
            @click="apart = apart ? null : []"
          >
            {{ w('plan.split') }}
          </button>
          <button type="button" class="act act-quiet" @click="emit('add')">{{ w('plan.addAfter') }}</button>
          <button type="button" class="act act-stop" @click="emit('remove')">{{ w('remove') }}</button>
        </div>
        <div v-if="apart" class="grid gap-2">
          <p>{{ w('plan.splitWhich') }}</p>
          <FaceChoice v-model="apart" :faces="names" :label="w('plan.splitWhich')" />
          <button
            type="button"
            class="act justify-self-start"
            :disabled="apart.length === 0 || apart.length === names.length"
            @click="split(apart)"
          >
            {{ w('plan.splitDo') }}
          </button>
        </div>
      </template>
    </div>
  </li>
</template>
