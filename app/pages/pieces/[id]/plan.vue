<script setup lang="ts">
import type { InternalApi } from 'nitropack/types'
import { useI18n } from 'vue-i18n'
import { MATERIALS } from '#core/layers/materials'
import type { Facts } from '#core/plan'
import { sectionOf } from '#core/section'

const { page, load: reload } = inject(PIECE)!
const session = useSession()
const clock = useClock()
const { hours, money, amount, span, day, dayTime } = useFormat()
const id = computed(() => page.value!.piece.id)
const { data, load } = useLive<InternalApi['/api/pieces/:id/plan']['get']>(() => `/api/pieces/${id.value}/plan`, (topic, piece) => topic === 'all' || topic === 'air' || piece === id.value)
const plan = computed(() => data.value?.ready ? data.value as PlanPage : null)
const open = ref<string | null>(null)
const edit = ref<{ attendedMin: number, amountMl: number | null, title: string } | null>(null)
const { t } = useI18n()
const can = computed(() => session.may('owner', 'lead', 'finisher') && page.value!.piece.state !== 'handed-over')
type Step = PlanPage['steps'][number]
const verdictsAt = (key: string) => plan.value!.verdicts.filter(v => v.step === key)
const waitsInto = (key: string) => plan.value!.waits.filter(w => w.to === key && (w.min > 0 || w.max !== null))
const target = (s: Step) => ({ stepId: s.id, rowVersion: s.rowVersion, title: s.title, kind: s.kind, product: s.product, amount_ml: s.amount_ml, gate: s.gate })
function toggle(s: Step) {
  open.value = open.value === s.key ? null : s.key
  edit.value = { attendedMin: s.attended_min, amountMl: s.amount_ml === null ? null : Math.ceil(s.amount_ml), title: s.title }
}
function openLayer(key: string) {
  open.value = null
  all.value = true
  const step = plan.value!.steps.find(s => s.key === key)
  if (step) toggle(step)
  void nextTick(() => document.getElementById(`step-${key}`)?.scrollIntoView({ block: 'center' }))
}
const again = async (done: unknown) => { await load(); if (done) await reload() }
const change = async (s: Step, body: object) => again(await send('PATCH', `/api/steps/${s.id}`, { rowVersion: s.rowVersion, ...body }))
const remove = async (s: Step) => again(await send('DELETE', `/api/steps/${s.id}?rowVersion=${s.rowVersion}`))
const words = ref<Record<string, string>>({})
const overrule = async (rule: string, stepKey: string) => again(await send('POST', `/api/pieces/${id.value}/overrules`, { rule, stepKey, word: words.value[rule + stepKey] ?? '' }))
const mend = async (rule: string, stepKey: string) => again(await send('POST', `/api/pieces/${id.value}/mends`, { rule, stepKey }))
/** The section at any point of the plan: after so many steps, all of them at first. */
const facts = shallowRef<Facts | null>(null)
const upTo = ref<number | null>(null)
const live = computed(() => plan.value?.steps.filter(s => s.state !== 'skipped') ?? [])
async function slide(n: number) {
  facts.value ??= (await fetchAs<{ facts: Facts }>(`/api/pieces/${id.value}/planning`)).facts
  upTo.value = n >= live.value.length ? null : n
}
const section = computed(() => upTo.value === null || !facts.value ? plan.value?.section ?? null
  : sectionOf(facts.value, live.value.slice(0, upTo.value), (key) => { const s = live.value.find(x => x.key === key); return s?.state === 'done' ? 'done' : s?.state === 'running' ? 'running' : 'planned' }))
const adding = ref<{ after: number, kind: string, title: string, attendedMin: number, product: string | null } | null>(null)
const KINDS = ['clean-off', 'wash', 'solvent-wash', 'scuff', 'sand', 'sand-coat', 'coat', 'stain', 'gel', 'conditioner', 'wax', 'other'] as const
async function add() {
  const a = adding.value!
  const needs = ['coat', 'stain', 'gel', 'conditioner'].includes(a.kind)
  const abrades = ['scuff', 'sand', 'sand-coat'].includes(a.kind)
  const done = await send('POST', `/api/pieces/${id.value}/steps`, { ...a, product: needs ? a.product : null, faces: page.value!.faces.filter(f => f.scope === 'refinish').map(f => f.id), amountMl: null, grits: abrades ? [a.kind === 'sand' ? 180 : 320] : [], method: abrades ? 'hand' : 'brush', coat: null })
  if (done) adding.value = null
  await again(done)
}
function waitText(w: PlanPage['waits'][number]): string {
  const [least, safe] = [span(w.min * 60_000), span(w.safe * 60_000)]
  const range = least === safe ? least : `${least} – ${safe}`
  return w.max === null ? range : t('plan.atMost', { range, max: span(w.max * 60_000) })
}
const lastDone = computed(() => plan.value?.steps.filter(s => s.state === 'done' && s.kind !== 'approval').sort((a, b) => b.finished_ms! - a.finished_ms!)[0]?.key)
function airOf(product: string | null) {
  const need = MATERIALS.find(m => m.slug === product)?.air
  return need ? { low: need.usual_C[0], high: need.limitMax_C ?? need.usual_C[1], lowRh: need.usualRh[0] * 100, highRh: need.usualRh[1] * 100, cooling: need.cooling_K } : null
}
const all = ref(false)
const KEEP_DONE = 2
const current = computed(() => plan.value?.steps.findIndex(s => s.state === 'running' || s.state === 'planned') ?? -1)
const hidden = computed(() => all.value || current.value < 0 ? 0 : Math.max(0, current.value - KEEP_DONE))
const shown = computed(() => plan.value?.steps.slice(hidden.value) ?? [])
const stateMark = { planned: '', running: 'border-l-verdigris', done: 'border-l-moss', skipped: 'border-l-line' } as const
const worst = computed(() => plan.value?.verdicts.filter(v => !v.overruled && v.severity !== 'note').sort((a, b) => ['forbidden', 'stop', 'warn', 'note'].indexOf(a.severity) - ['forbidden', 'stop', 'warn', 'note'].indexOf(b.severity)) ?? [])
</script>

<template>
  <p v-if="data && !data.ready">{{ $t('plan.none') }} <NuxtLink :to="`/pieces/${id}/route`" class="underline">{{ $t('plan.toRoute') }}</NuxtLink></p>
  <div v-else-if="plan" class="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_27rem] gap-x-10 gap-y-6">
    <div class="order-2 xl:order-1">
      <ol>
        <li v-if="hidden > 0"><button class="underline min-h-11" @click="all = true">{{ $t('plan.showDone', { n: hidden }) }}</button></li>
        <template v-for="s in shown" :key="s.key">
          <li v-for="w in waitsInto(s.key)" :key="w.from + w.to" class="caption flex items-center gap-2 py-1 pl-4" :class="s.state === 'skipped' ? 'hidden' : ''" data-test="wait">
            <svg width="14" height="22" aria-hidden="true"><rect x="4" width="6" height="22" :fill="w.max !== null ? 'var(--color-ochre)' : 'var(--color-slate)'" :opacity="w.hard ? 1 : .45" /></svg>{{ waitText(w) }} · {{ w.why }}
          </li>
          <li :id="`step-${s.key}`" class="bg-sheet border-l-[5px] px-4 py-2 my-0.5" :class="[stateMark[s.state] || 'border-l-transparent', s.state === 'skipped' ? 'text-soft line-through' : '']" data-test="step" :data-key="s.key" :data-state="s.state">
            <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
              <button class="grow basis-48 text-left min-h-12" :aria-expanded="open === s.key" @click="toggle(s)">
                <strong class="font-semibold">{{ s.title }}</strong><span v-if="s.byHand" class="caption"> · {{ $t('plan.byHand') }}</span>
                <span v-if="s.keeps.length && s.state !== 'done'" class="block text-ochre" data-test="keeps">{{ $t('plan.keeps', { marks: s.keeps.join(', ') }) }}</span>
                <span v-if="s.state === 'done'" class="caption block">{{ s.gateResult ? $t(`plan.${s.gateResult}`) : $t('plan.done') }} {{ s.finishedBy ?? '' }} {{ dayTime(s.finished_ms!) }}</span>
                <span v-else-if="s.state === 'running'" class="caption block text-verdigris">{{ $t('now.runs') }} {{ span(clock.now - s.started_ms!) }}, {{ s.startedBy }}</span>
              </button>
              <span class="clock text-right whitespace-nowrap">{{ s.attended_min ? hours(s.attended_min) : '' }}<span v-if="s.amount_ml" class="caption block">{{ amount(s.amount_ml) }}</span></span>
              <BenchAct v-if="can && s.kind !== 'approval' && (s.state === 'running' || s.state === 'planned' && (s.start.may || waitsInto(s.key).length && s.start.refusals.some(r => r.code === 'too-early')))" :step="target(s)" :state="s.state === 'running' ? 'running' : 'planned'" :may="s.start.may" waits />
              <BenchAct v-else-if="can && s.key === lastDone" :step="target(s)" state="done" />
              <NuxtLink v-if="s.kind === 'approval' && s.state === 'planned'" :to="`/pieces/${id}/client`" class="act no-underline">{{ $t('plan.ask') }}</NuxtLink>
            </div>
            <div v-for="v in verdictsAt(s.key)" :key="v.rule" class="verdict my-2" :class="v.severity === 'stop' || v.severity === 'forbidden' ? 'verdict-stop' : ''" data-test="verdict" :data-rule="v.rule">
              <strong>{{ $t(`severity.${v.severity}`) }}: {{ v.says }}.</strong> {{ v.reason }} <em class="not-italic text-verdigris font-semibold">{{ v.mend }}</em>
              <button v-if="can && v.oneTouch && !v.overruled" class="act act-quiet my-1 flex!" data-test="mend" @click="mend(v.rule, s.key)">{{ v.oneTouch }}</button>
              <span class="caption block">{{ v.rule }} · {{ v.source }}</span>
              <span v-if="v.overruled" class="block">{{ $t('plan.overruled', { by: v.overruled.by }) }}: {{ v.overruled.word }}</span>
              <span v-else-if="v.mayOverrule" class="flex gap-2 mt-1"><input v-model="words[v.rule + s.key]" class="field" :placeholder="$t('plan.word')" :aria-label="$t('plan.word')"><button class="act act-stop" @click="overrule(v.rule, s.key)">{{ $t('plan.overrule') }}</button></span>
            </div>
            <div v-if="open === s.key" class="pb-3 grid gap-2">
              <p>{{ s.why }}</p>
              <p class="caption">{{ s.faceNames.join(' · ') }}<template v-if="s.product"> · {{ s.product }}, {{ $t('plan.label') }}</template></p>
              <p v-if="airOf(s.product)" class="caption">{{ $t('plan.air', airOf(s.product)!) }}</p>
              <p v-for="c in s.cautionTexts" :key="c" class="verdict">{{ c }}</p>
              <p v-for="r in s.state === 'planned' ? s.start.refusals : []" :key="r.says">{{ r.says }}</p>
              <form v-if="can && s.state === 'planned' && s.kind !== 'approval' && edit" class="flex flex-wrap gap-2 items-end" @submit.prevent="change(s, edit)">
                <label class="grow">{{ $t('plan.what') }} <input v-model="edit.title" class="field"></label>
                <label class="w-28">{{ $t('plan.minutes') }} <input v-model.number="edit.attendedMin" type="number" min="0" class="field"></label>
                <label v-if="edit.amountMl !== null" class="w-28">ml <input v-model.number="edit.amountMl" type="number" min="0" class="field"></label>
                <button class="act">{{ $t('save') }}</button>
                <button type="button" class="act act-quiet" @click="change(s, { moveBy: -1 })">{{ $t('plan.up') }}</button>
                <button type="button" class="act act-quiet" @click="change(s, { moveBy: 1 })">{{ $t('plan.down') }}</button>
                <button type="button" class="act act-stop" @click="remove(s)">{{ $t('remove') }}</button>
                <button type="button" class="act act-quiet" @click="adding = { after: s.id, kind: 'clean-off', title: '', attendedMin: 10, product: 'dewaxed-shellac' }">{{ $t('plan.addAfter') }}</button>
              </form>
              <form v-if="adding?.after === s.id" class="flex flex-wrap gap-2 items-end" @submit.prevent="add">
                <label>{{ $t('plan.kind') }} <select v-model="adding.kind" class="field"><option v-for="k in KINDS" :key="k" :value="k">{{ $t(`step.${k}`) }}</option></select></label>
                <label class="grow">{{ $t('plan.what') }} <input v-model="adding.title" class="field" required></label>
                <label class="w-28">{{ $t('plan.minutes') }} <input v-model.number="adding.attendedMin" type="number" min="0" class="field"></label>
                <label v-if="['coat', 'stain', 'gel', 'conditioner'].includes(adding.kind)">{{ $t('plan.product') }} <select v-model="adding.product" class="field"><option v-for="m in MATERIALS" :key="m.slug" :value="m.slug">{{ m.name }}</option></select></label>
                <button class="act">{{ $t('plan.add') }}</button>
              </form>
            </div>
          </li>
        </template>
      </ol>
    </div>
    <aside class="order-1 xl:order-2 grid gap-5 content-start xl:sticky xl:top-4 self-start">
      <div v-if="section">
        <SectionDrawing :section="section" :label="$t('section.label', { species: section.species })" @open="openLayer" />
        <label class="block caption">{{ upTo === null ? $t('section.atEnd') : upTo === 0 ? $t('section.atStart') : $t('section.after', { step: live[upTo - 1]!.title }) }}
          <input type="range" min="0" :max="live.length" :value="upTo ?? live.length" class="w-full h-11" :aria-label="$t('section.slide')" @input="slide(Number(($event.target as HTMLInputElement).value))"></label>
      </div>
      <div v-if="worst.length" class="verdict" :class="worst[0]!.severity === 'warn' ? '' : 'verdict-stop'"><strong>{{ $t('plan.breaks', { n: worst.length }) }}</strong> {{ worst[0]!.says }}. <button class="underline min-h-8" @click="openLayer(worst[0]!.step)">{{ $t('plan.show') }}</button></div>
      <details v-if="plan.since && (plan.since.changes.length || plan.since.price_minor)" class="verdict" :class="plan.since.needsAnswer ? 'verdict-stop' : ''" data-test="since">
        <summary class="cursor-pointer min-h-11 py-1.5">{{ $t('plan.since', { n: plan.since.changes.length, min: `${plan.since.minutes >= 0 ? '+' : '−'}${hours(Math.abs(plan.since.minutes))}`, sum: `${plan.since.price_minor >= 0 ? '+' : '−'}${money(Math.abs(plan.since.price_minor))}` }) }}<strong v-if="plan.since.needsAnswer" class="block text-madder">{{ $t('plan.newAnswer') }}</strong></summary>
        <p v-for="c in plan.since.changes" :key="c.key" class="caption mt-1"><span v-if="c.before" class="line-through">{{ c.before.title }}, {{ c.before.attended_min }} min</span> <span v-if="c.after">{{ c.after.title }}, {{ c.after.attended_min }} min</span></p>
      </details>
      <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2 clock [&>dd]:text-right [&>dd]:font-bold">
        <dt>{{ $t('plan.handsLeft') }}</dt><dd>{{ hours(plan.left_min) }}</dd>
        <dt>{{ $t('plan.film') }}</dt><dd data-test="film">{{ Math.round(plan.film_um) }} µm</dd>
        <dt>{{ $t('plan.ready') }}</dt><dd>{{ plan.dates.readyLikely_ms ? day(plan.dates.readyLikely_ms) : '' }}<span v-if="plan.dates.readySafe_ms" class="caption block font-normal">{{ $t('plan.safe') }} {{ day(plan.dates.readySafe_ms) }}</span></dd>
        <dt>{{ $t('plan.cost') }}</dt><dd data-test="cost">{{ money(plan.cost.soFar_minor) }}<span class="caption block font-normal">{{ plan.agreed_minor === null ? $t('plan.notAgreed') : $t('plan.agreed', { sum: money(plan.agreed_minor), worst: money(plan.acceptedWorst_minor!) }) }}</span></dd>
        <dt>{{ $t('plan.planned') }}</dt><dd>{{ money(plan.cost.planned_minor) }}</dd>
      </dl>
      <section v-for="b in plan.budgets" :key="b.species">
        <h3>{{ $t('plan.veneer', { species: b.species, mm: (b.thickness_um / 1000).toFixed(1) }) }} <strong :class="b.verdict === 'fine' ? 'text-moss' : b.verdict === 'by-hand' ? 'text-ochre' : 'text-madder'">{{ $t(`veneer.${b.verdict}`) }}</strong></h3>
        <div v-for="(r, i) in b.rows" :key="i" class="grid grid-cols-[4rem_1fr_4rem] gap-2 items-center caption clock"><span>P{{ r.grit.number }}</span><svg viewBox="0 0 100 8" class="h-3 w-full" preserveAspectRatio="none" aria-hidden="true"><rect :width="Math.min(100, 100 * r.takes_um / (b.thickness_um - b.reserve_um))" height="8" fill="var(--color-slate)" /></svg><span class="text-right">{{ Math.round(r.takes_um) }} µm</span></div>
        <p class="caption clock">{{ $t('plan.veneerSum', { takes: Math.round(b.takes_um), worst: Math.round(b.worst_um), spare: Math.round(b.thickness_um - b.reserve_um), reserve: b.reserve_um }) }}</p>
      </section>
      <p class="caption">{{ $t('plan.source') }}</p>
    </aside>
  </div>
  <p v-else>{{ $t('loading') }}</p>
</template>
