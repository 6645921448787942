<script setup lang="ts">
import { type Grit, gritsWritten, parseGrit } from '#core/abrasives'
import { actOf, chosenOf, takesProduct, withLeast } from '#core/acts'
import type { Choice } from '#core/build'
import type { Context } from '#core/context'
import { MATERIALS } from '#core/materials'
import { completePlan, editedStep, type StepEdit } from '#core/plan'
import { blocks } from '#core/safety'
import { judgePlan, type Verdict } from '#core/rules'

/** What a step is: changed here, with the rules run after a short pause, before anything is saved. */
const props = defineProps<{ step: PlanPage['steps'][number]; plan: PlanPage; context: Context; choice: Choice }>()
type Change = Omit<StepEdit, 'attended_min' | 'amount_ml'> & { attendedMin?: number; amountMl?: number | null }
const emit = defineEmits<{ save: [change: Change] }>()
const { hours } = useFormat()
const begin = () => ({
  title: props.step.title,
  attendedMin: props.step.attended_min,
  amountMl: props.step.amount_ml === null ? null : Math.ceil(props.step.amount_ml),
  grits: gritsWritten(props.step.grits),
  product: props.step.product,
  method: props.step.method,
  fields: chosenOf(props.step.fields),
})
const edit = ref(begin())
watch(
  () => props.step.rowVersion,
  () => {
    edit.value = begin()
  },
)
const gritError = ref('')
const act = computed(() => actOf(props.step))
const abrades = computed(() => act.value.fields.includes('grits'))
const products = computed(() => MATERIALS.filter(m => takesProduct(props.step, m)))
/** The methods of its kind, and the one that it was given. */
const methods = computed(() => [...new Set([...act.value.methods, props.step.method])])

/** Grits as typed, each on its scale. */
function typedGrits(): Grit[] | null {
  try {
    gritError.value = ''
    return edit.value.grits
      .split(/[,→>;]+/)
      .map(g => g.trim())
      .filter(Boolean)
      .map(g => parseGrit(g))
  } catch (error) {
    gritError.value = (error as Error).message
    return null
  }
}
const change = computed(() => {
  const now = begin()
  const grits = typedGrits()
  const c: Change = {}
  if (edit.value.title !== now.title) c.title = edit.value.title
  if (edit.value.attendedMin !== now.attendedMin) c.attendedMin = edit.value.attendedMin
  if (edit.value.amountMl !== now.amountMl) c.amountMl = edit.value.amountMl
  if (edit.value.product !== now.product) c.product = edit.value.product
  if (edit.value.method !== now.method) c.method = edit.value.method
  if (JSON.stringify(edit.value.fields) !== JSON.stringify(now.fields)) c.fields = edit.value.fields
  if (grits && gritsWritten(grits) !== gritsWritten(props.step.grits)) c.grits = grits
  return c
})
/** What was typed once may follow from the kind of step again. */
const follow = () => emit('save', { follow: [...props.step.typed] })
const PAUSE_MS = 250
const seen = shallowRef<{ breaks: Verdict[]; mends: string[]; minutes: number | null } | null>(null)
watchDebounced(
  change,
  c => {
    if (Object.keys(c).length === 0 || gritError.value) {
      seen.value = null
      return
    }
    const live = props.plan.steps.filter(s => s.state !== 'skipped')
    const { attendedMin: attended_min, amountMl: amount_ml, ...rest } = c
    const next = live.map(s => (s.key === props.step.key ? editedStep(s, { ...rest, attended_min, amount_ml }) : s))
    const again = completePlan(next, props.context, props.choice)
    const leasts = props.plan.waits.flatMap(w =>
      w.least_min === null ? [] : [{ from: w.from, to: w.to, min: w.least_min }],
    )
    const verdicts = judgePlan({
      context: props.context,
      choice: props.choice,
      steps: again.steps,
      waits: withLeast(again.waits, leasts, new Set(again.steps.map(s => s.key))),
      licences: props.plan.licences,
    })
    const id = (v: { rule: string; step: string }) => `${v.rule}|${v.step}`
    const before = new Set(props.plan.verdicts.map(id))
    const after = new Set(verdicts.map(id))
    const minutes = again.steps.find(s => s.key === props.step.key)!.attended_min
    seen.value = {
      breaks: verdicts.filter(v => !before.has(id(v))),
      mends: props.plan.verdicts.filter(v => !after.has(id(v))).map(v => v.says),
      minutes: minutes === props.step.attended_min ? null : minutes,
    }
  },
  { debounce: PAUSE_MS, deep: true },
)
</script>

<template>
  <form class="flex flex-wrap gap-2 items-end" @submit.prevent="emit('save', change)">
    <label class="grow basis-64">{{ w('plan.what') }} <input v-model="edit.title" class="field" /></label>
    <label class="w-28"
      >{{ w('plan.minutes') }} <input v-model.number="edit.attendedMin" type="number" min="0" class="field"
    /></label>
    <label v-if="edit.amountMl !== null" class="w-28"
      >ml <input v-model.number="edit.amountMl" type="number" min="0" class="field"
    /></label>
    <label v-if="abrades" class="w-48"
      >{{ w('plan.grits') }} <input v-model="edit.grits" class="field" :aria-invalid="Boolean(gritError)"
    /></label>
    <FindField
      v-if="products.length"
      v-model="edit.product"
      :label="w('plan.product')"
      :options="[{ value: null, label: w('field.unsaid') }, ...namedOptions(products)]"
      class="w-60"
    />
    <ChoiceField
      v-if="methods.length > 1"
      v-model="edit.method"
      :label="w('plan.method')"
      :options="optionsOf(methods, m => w(`method.${m}`))"
      class="w-44"
    />
    <StepFields v-model="edit.fields" :kind="step.kind" />
    <button class="act" :disabled="Boolean(gritError)">{{ w('save') }}</button>
    <button v-if="step.typed.length" type="button" class="act act-quiet" @click="follow">{{ w('plan.follow') }}</button>
    <p v-if="gritError" class="w-full text-madder" role="alert">{{ gritError }}</p>
    <div v-if="seen" class="w-full" role="status" data-test="foreseen">
      <p v-if="seen.minutes !== null" class="clock">
        {{ w('plan.foreseenTime', { min: hours(seen.minutes), was: hours(step.attended_min) }) }}
      </p>
      <p v-if="seen.breaks.length">{{ w('plan.wouldBreak') }}</p>
      <p v-for="v in seen.breaks" :key="v.rule + v.step" class="verdict" :class="blocks(v) ? 'verdict-stop' : ''">
        <strong>{{ w(`severity.${v.severity}`) }}: {{ v.says }}.</strong> {{ v.mend }}
      </p>
      <p v-for="m in seen.mends" :key="m" class="text-moss">{{ w('plan.wouldMend', { what: m }) }}</p>
      <p v-if="!seen.breaks.length && !seen.mends.length" class="caption">{{ w('plan.noRule') }}</p>
    </div>
  </form>
</template>
