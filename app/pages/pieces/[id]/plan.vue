<script setup lang="ts">
import { wentHome } from '#core/piece'

import Sortable from 'sortablejs'
import type { Context } from '#core/context'
import { surfaceOf } from '#core/section'

const { page, load: reload } = inject(PIECE)!
const session = useSession()
const { span } = useFormat()
const id = computed(() => page.value!.piece.id)
const { data, load, failed } = useLive(
  'GET /api/pieces/:id/plan',
  (topic, piece) => topic === 'air' || piece === id.value,
  () => ({ id: id.value }),
)
const asRead = computed(() => (data.value?.ready ? (data.value as PlanPage) : null))
const plan = usePlanShown(asRead, () => id.value)
const open = ref<string | null>(null)
const line = useLine()
const works = computed(() => !wentHome(page.value!.piece.state))
/** Without a line a plan is worked on, not changed. */
const can = computed(() => works.value && !line.away && session.may('edit-plan'))
type Step = PlanPage['steps'][number]
const waitsInto = (key: string) => plan.value!.waits.filter(w => w.to === key && (w.min > 0 || w.max !== null))
/** What is known of the piece: for the section at a point of the plan, and for rules before anything is saved. */
const context = shallowRef<Context | null>(null)
const needContext = async () => {
  context.value = (await planningOf(id.value)).context
}
function toggle(s: Step) {
  open.value = open.value === s.key ? null : s.key
  if (open.value) void needContext()
}
function openLayer(key: string) {
  all.value = true
  open.value = key
  void needContext()
  void nextTick(() => document.getElementById(`step-${key}`)?.scrollIntoView({ block: 'center' }))
}
/** What Now and a label lead to: one step of this plan. */
const route = useRoute()
watch(
  [plan, () => route.query.step],
  ([read, key], [had, before] = [undefined, undefined]) => {
    if (read && typeof key === 'string' && (!had || key !== before)) openLayer(key)
  },
  { immediate: true },
)
const again = async (done: unknown) => {
  await load()
  if (done) await reload()
}
const change = async (s: Step, body: Omit<BodyOf<'PATCH /api/steps/:id'>, 'rowVersion'>) =>
  again(await send('PATCH /api/steps/:id', { id: s.id, body: { rowVersion: s.rowVersion, ...body } }))
const remove = async (s: Step) =>
  again(await send('DELETE /api/steps/:id', { id: s.id, query: { rowVersion: s.rowVersion } }))
const split = async (s: Step, faces: number[]) =>
  again(await send('POST /api/steps/:id/split', { id: s.id, body: { rowVersion: s.rowVersion, faces } }))
const overrule = async (rule: string, stepKey: string, word: string) =>
  again(await send('POST /api/pieces/:id/overrules', { id: id.value, body: { rule, stepKey, word } }))
const mend = async (rule: string, stepKey: string) =>
  again(await send('POST /api/pieces/:id/mends', { id: id.value, body: { rule, stepKey } }))
const takeFound = async (take: boolean) =>
  again(await send('POST /api/pieces/:id/found', { id: id.value, body: { rowVersion: plan.value!.rowVersion, take } }))
const back = async (which: 'undo' | 'redo') => {
  if (plan.value?.[which]) await again(await send('POST /api/pieces/:id/plan-back', { id: id.value, body: { which } }))
}
/** One place earlier or later among all steps; the focus stays on the step. */
async function move(s: Step, by: number) {
  const steps = plan.value!.steps
  const at = steps.findIndex(x => x.key === s.key)
  const after = by < 0 ? steps[at - 2] : steps[at + 1]
  if (by > 0 && !after) return
  await change(s, { after: after?.id ?? null })
  await nextTick()
  document.querySelector<HTMLElement>(`#step-${CSS.escape(s.key)} .grip`)?.focus()
}
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!(e.ctrlKey || e.metaKey) || (e.target as HTMLElement).closest('input, textarea, select')) return
  if (e.key === 'z' && !e.shiftKey) {
    e.preventDefault()
    void back('undo')
  }
  if (e.key === 'y' || (e.key.toLowerCase() === 'z' && e.shiftKey)) {
    e.preventDefault()
    void back('redo')
  }
})
const list = useTemplateRef<HTMLElement>('list')
/**
 * Steps are dragged by their grip. The page's own order comes back from the server; the dragged element is put back
 * before that.
 */
watch(list, (el, _old, onCleanup) => {
  if (!el) return
  let next: ChildNode | null = null
  const sortable = Sortable.create(el, {
    handle: '.grip',
    draggable: '.movable',
    animation: 120,
    onStart: e => {
      next = e.item.nextSibling
    },
    onEnd: e => {
      let before = e.item.previousElementSibling
      while (before && !before.hasAttribute('data-id')) before = before.previousElementSibling
      const after = before ? Number(before.getAttribute('data-id')) : (plan.value!.steps[hidden.value - 1]?.id ?? null)
      el.insertBefore(e.item, next)
      const s = plan.value!.steps.find(x => x.id === Number(e.item.getAttribute('data-id')))
      const at = plan.value!.steps.findIndex(x => x === s)
      if (s && plan.value!.steps[at - 1]?.id !== after) void change(s, { after })
    },
  })
  onCleanup(() => sortable.destroy())
})
/** The section at any point of the plan: after so many steps, all of them at first. */
const upTo = ref<number | null>(null)
const live = computed(() => plan.value?.steps.filter(s => s.state !== 'skipped') ?? [])
async function slide(n: number) {
  if (!context.value) await needContext()
  upTo.value = n >= live.value.length ? null : n
}
const section = computed(() =>
  upTo.value === null || !context.value
    ? (plan.value?.section ?? null)
    : surfaceOf(context.value, live.value.slice(0, upTo.value), {
        stateOf: key => {
          const state = live.value.find(x => x.key === key)?.state
          return state === 'done' || state === 'running' ? state : 'planned'
        },
      }),
)
/** The step after which another is being put in. */
const adding = ref<number | null>(null)
function addAfter(step: number) {
  adding.value = step
  void needContext()
}
const scope = computed(() =>
  page.value!.faces.filter(f => f.scope === 'refinish').map(f => ({ id: f.id, name: `${f.part}, ${f.name}` })),
)
async function add(step: BodyOf<'POST /api/pieces/:id/steps'>) {
  const done = await send('POST /api/pieces/:id/steps', { id: id.value, body: step })
  if (done) adding.value = null
  await again(done)
}
function waitText(wait: PlanPage['waits'][number]): string {
  const [least, safe] = [span(wait.min * 60_000), span(wait.safe * 60_000)]
  const range = least === safe ? least : `${least} – ${safe}`
  return wait.max === null ? range : w('plan.atMost', { range, max: span(wait.max * 60_000) })
}
const lastDone = computed(
  () =>
    plan.value?.steps
      .filter(s => s.state === 'done' && s.kind !== 'approval')
      .sort((a, b) => b.finished_ms! - a.finished_ms!)[0]?.key,
)
const all = ref(false)
const KEEP_DONE = 2
const current = computed(() => plan.value?.steps.findIndex(s => s.state === 'running' || s.state === 'planned') ?? -1)
const hidden = computed(() => (all.value || current.value < 0 ? 0 : Math.max(0, current.value - KEEP_DONE)))
const shown = computed(() => plan.value?.steps.slice(hidden.value) ?? [])
const worst = computed(
  () =>
    plan.value?.verdicts
      .filter(v => !v.overruled && v.severity !== 'note')
      .sort(
        (a, b) =>
          ['forbidden', 'stop', 'warn', 'note'].indexOf(a.severity) -
          ['forbidden', 'stop', 'warn', 'note'].indexOf(b.severity),
      ) ?? [],
)
useRowKeys()
</script>

<template>
  <p v-if="data && !data.ready">
    {{ w('plan.none') }} <NuxtLink :to="`/pieces/${id}/route`" class="underline">{{ w('plan.toRoute') }}</NuxtLink>
  </p>
  <div
    v-else-if="plan"
    class="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_27rem] xl:grid-rows-[auto_1fr] gap-x-10 gap-y-6"
  >
    <div v-if="worst.length || plan.found || plan.since" class="grid gap-5 content-start xl:col-start-2">
      <div v-if="worst.length" class="verdict" :class="worst[0]!.severity === 'warn' ? '' : 'verdict-stop'">
        <strong>{{ w('plan.breaks', { n: worst.length }) }}</strong> {{ worst[0]!.says }}.
        <button class="underline min-h-11 px-1" @click="openLayer(worst[0]!.step)">{{ w('plan.show') }}</button>
      </div>
      <PlanFound v-if="plan.found" :found="plan.found" :can="can" @take="takeFound" />
      <PlanSince v-if="plan.since" :since="plan.since" />
    </div>
    <div class="xl:col-start-1 xl:row-start-1 xl:row-span-2">
      <p v-if="line.away" class="caption py-2">{{ w('line.editsLater') }}</p>
      <div v-if="can && (plan.undo || plan.redo)" class="sticky top-0 z-20 bg-ground flex flex-wrap gap-2 py-2">
        <button
          class="act act-quiet"
          :disabled="!plan.undo"
          :title="plan.undo ?? ''"
          data-test="undo"
          @click="back('undo')"
        >
          {{ w('plan.undo') }}
        </button>
        <button
          class="act act-quiet"
          :disabled="!plan.redo"
          :title="plan.redo ?? ''"
          data-test="redo"
          @click="back('redo')"
        >
          {{ w('plan.redo') }}
        </button>
        <span class="caption self-center grow basis-40">{{ plan.undo ?? plan.redo }}</span>
      </div>
      <ol ref="list">
        <li v-if="hidden > 0">
          <button class="underline min-h-11" @click="all = true">{{ w('plan.showDone', { n: hidden }) }}</button>
        </li>
        <template v-for="s in shown" :key="s.key">
          <li
            v-for="w in waitsInto(s.key)"
            :key="w.from + w.to"
            class="caption flex items-center gap-2 py-1 pl-4"
            :class="s.state === 'skipped' ? 'hidden' : ''"
            data-test="wait"
          >
            <svg width="14" height="22" aria-hidden="true">
              <rect
                x="4"
                width="6"
                height="22"
                :fill="w.max !== null ? 'var(--color-ochre)' : 'var(--color-slate)'"
                :opacity="w.hard ? 1 : 0.45"
              /></svg
            >{{ waitText(w) }} · {{ w.why }}
          </li>
          <PlanStep
            :step="s"
            :plan="plan"
            :context="context"
            :open="open === s.key"
            :can="can"
            :works="works"
            :last="s.key === lastDone"
            @toggle="toggle(s)"
            @change="change(s, $event)"
            @remove="remove(s)"
            @split="split(s, $event)"
            @move="move(s, $event)"
            @add="addAfter(s.id)"
            @mend="mend($event, s.key)"
            @overrule="(rule, word) => overrule(rule, s.key, word)"
          />
          <li v-if="adding === s.id" class="bg-sheet px-4 py-3">
            <AddStep
              v-if="context"
              :after="s.id"
              :context="context"
              :faces="scope"
              @add="add"
              @cancel="adding = null"
            />
          </li>
        </template>
      </ol>
    </div>
    <aside class="xl:col-start-2 grid gap-5 content-start xl:sticky xl:top-4 self-start">
      <div v-if="section">
        <SectionDrawing
          :section="section"
          :label="w('section.label', { species: section.species })"
          @open="openLayer"
        />
        <label class="block caption"
          >{{
            upTo === null
              ? w('section.atEnd')
              : upTo === 0
                ? w('section.atStart')
                : w('section.after', { step: live[upTo - 1]!.title })
          }}
          <input
            type="range"
            min="0"
            :max="live.length"
            :value="upTo ?? live.length"
            class="w-full h-11"
            :aria-label="w('section.slide')"
            @input="slide(Number(($event.target as HTMLInputElement).value))"
        /></label>
      </div>
      <template v-if="page?.piece.state === 'active'"><PlanNeeds :id="id" /><PlanAir :id="id" /></template>
      <PlanLearnt :piece-id="id" :learnt="plan.learnt" :can="can" @changed="again(true)" />
      <PlanSums :plan="plan" />
      <div>
        <a class="underline min-h-11 inline-flex items-center" :href="`/api/pieces/${id}/ticket`" target="_blank">{{
          w('papers.ticket')
        }}</a>
        <NuxtLink :to="`/pieces/${id}/faults`" class="underline min-h-11 flex items-center">{{
          w('fault.see')
        }}</NuxtLink>
        <LabelLinks :says="w('papers.labels')" :address="`/api/pieces/${id}/labels`" />
      </div>
    </aside>
  </div>
  <PageState v-else :failed="failed" />
</template>
