<script setup lang="ts">
import Sortable from 'sortablejs'
import {
  type Ending,
  ENDINGS,
  freshLayerId,
  type KnownSurface,
  laidAsKnown,
  layerOfOffer,
  lookOfChoice,
  proposedAnew,
} from '#core/build'
import { ROUTE_NAMES, STRIPPING } from '#core/piece'
import { type OfferHere, replaceBuildUp, workOutPlan } from '#core/plan'
import { sumOf } from '#core/units'
import { surfaceOf } from '#core/section'
import type { ComposeAnswer } from '~/workers/compose.worker'

/** The surface composed layer by layer, on its own section: what is chosen is seen, and the plan follows from it. */
const { load: reload } = inject(PIECE)!
const route = useRoute()
const session = useSession()
const id = computed(() => Number(route.params.id))
const { data, load, failed } = useLive(
  'GET /api/pieces/:id/build-up',
  (topic, piece) => topic === 'store' || piece === id.value,
  () => ({ id: id.value }),
)
const page = computed(() => data.value as unknown as ComposePage | null)
const { choice, at, chosen, buildUp, changed, begin, undo, put, change, move, out, end, replace } = useComposing(page)
const can = computed(() => session.may('plan'))
const frozen = computed(() => new Set(page.value?.frozen))
/** counted from the wood: below it nothing more is put in */
const lastFrozen = computed(() => (buildUp.value?.layers.findLastIndex(l => frozen.value.has(l.id)) ?? -1) + 1)

/** What wish, wood and house would lay here, and what that comes to. */
const proposal = computed(() =>
  page.value && choice.value && buildUp.value ? proposedAnew(page.value.context, choice.value, buildUp.value) : null,
)
const proposedSum = shallowRef<ComposeAnswer['sum'] | null>(null)

/** Planned here at once, so that what is touched is drawn; what the rules and the sums say comes after it. */
const plan = computed(() => (page.value && choice.value ? workOutPlan(page.value.context, choice.value) : null))
const faces = computed(() =>
  (page.value?.faces ?? []).filter(
    f => buildUp.value?.faces?.includes(f.id) ?? !choice.value?.buildUps.some(b => b.faces?.includes(f.id)),
  ),
)
const face = ref<number | null>(null)
watch(at, () => {
  proposedSum.value = null
  face.value = null
  chosen.value = null
  place.value = null
})
const shown = computed(() => {
  const on = face.value ?? faces.value.find(f => f.rank === 'show')?.id ?? faces.value[0]?.id ?? null
  return page.value && plan.value ? surfaceOf(page.value.context, plan.value.steps, { face: on }) : null
})

const ask = useComposeWorker()
const found = shallowRef<ComposeAnswer | null>(null)
const first = shallowRef<ComposeAnswer['sum'] | null>(null)
const PAUSE_MS = 120
watchDebounced(
  [choice, page],
  async () => {
    if (!page.value || !choice.value) return
    const { context, asking } = page.value
    const standing = page.value.choice && changed.value ? { before: page.value.choice, ...page.value.plan } : undefined
    const answer = await ask({ context, choice: choice.value, asking, standing })
    found.value = answer
    if (!changed.value) first.value = answer.sum
    if (!proposal.value || proposedSum.value) return
    const proposed = replaceBuildUp(choice.value, proposal.value)
    proposedSum.value = (await ask({ context, choice: proposed, asking })).sum ?? null
  },
  { debounce: PAUSE_MS, immediate: true },
)
/** Each once, however many coats of a layer it is said of. */
const verdicts = computed(() => {
  const grave = (found.value?.verdicts ?? []).filter(v => v.severity !== 'note')
  const once = new Map(grave.map(v => [`${v.rule} ${v.says} ${v.layer}`, v]))
  return [...once.values()].map(v => ({ ...v, says: `${v.says.slice(0, 1).toUpperCase()}${v.says.slice(1)}` }))
})
const spoken = (layer: number) => verdicts.value.filter(v => v.layer === layer)
const GRAVE = ['stop', 'forbidden']
const failing = computed(
  () => new Set(verdicts.value.flatMap(v => (v.layer !== null && GRAVE.includes(v.severity) ? [v.layer] : []))),
)

/** A boundary that was touched, counted from the wood, and what may be put in there. */
const place = ref<number | null>(null)
const offers = shallowRef<OfferHere[]>([])
async function touch(where: number) {
  place.value = place.value === where ? null : where
  known.value = false
  chosen.value = null
  offers.value = []
  if (place.value === null || !page.value || !choice.value || !buildUp.value) return
  const { context, asking } = page.value
  const answer = await ask({ context, choice: choice.value, asking, offer: { buildUp: buildUp.value, at: where } })
  if (place.value === where) offers.value = answer.offers ?? []
}
function take(offer: OfferHere) {
  if (place.value === null) return
  const { id: _new, ...layer } = layerOfOffer(0, offer)
  put(place.value, layer)
  place.value = null
}
function choose(layer: number) {
  place.value = null
  known.value = false
  chosen.value = chosen.value === layer ? null : layer
}
const selected = computed(() => buildUp.value?.layers.find(l => l.id === chosen.value) ?? null)

const ROW = 64
/** From the surface down, as it is drawn. */
const rows = computed(() => [...(buildUp.value?.layers ?? [])].reverse())
const rowAt = computed(() => new Map(rows.value.map((l, i) => [l.id, (i + 0.5) * ROW])))
const high = computed(() => Math.max(420, rows.value.length * ROW + 60))
const list = useTemplateRef<HTMLElement>('list')
watch(list, (el, _old, onCleanup) => {
  if (!el || !can.value) return
  let next: ChildNode | null = null
  const sortable = Sortable.create(el, {
    handle: '.grip',
    draggable: '.layer-row',
    animation: 120,
    onStart: e => {
      next = e.item.nextSibling
    },
    onEnd: e => {
      const by = (e.oldDraggableIndex ?? 0) - (e.newDraggableIndex ?? 0)
      el.insertBefore(e.item, next)
      move(Number(e.item.getAttribute('data-layer')), by)
    },
  })
  onCleanup(() => sortable.destroy())
})
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!(e.ctrlKey || e.metaKey) || e.key !== 'z' || (e.target as HTMLElement).closest('input, textarea')) return
  e.preventDefault()
  undo()
})

const { usualOf, nameOf, saysOf, whyOut } = useLayerWords({ page, buildUp, shown, faces })
const { busy, leave, take: save } = useTaking(page, buildUp, () => Promise.all([load(), reload()]))
/** Another look than the one that was agreed on asks the client again. */
const asksAgain = computed(() => {
  if (!page.value?.choice || !choice.value || !page.value.plan.past.some(s => s.kind === 'approval')) return false
  return lookOfChoice(page.value.choice, page.value.context) !== lookOfChoice(choice.value, page.value.context)
})

const known = ref(false)
function layKnown(surface: KnownSurface) {
  if (!buildUp.value || !choice.value) return
  const { buildUp: next, missed } = laidAsKnown(surface, buildUp.value, namedFaces.value, freshLayerId(choice.value))
  replace(next)
  known.value = false
  if (missed.length) useNotes().show(w('surface.missed', { what: missed.join('; ') }), 'stop')
}
const namedFaces = computed(() => {
  const on = new Set(faces.value.map(f => f.id))
  return page.value?.context.facts.faces.filter(f => on.has(f.id)) ?? []
})
</script>

<template>
  <div v-if="page">
    <p v-if="!page.ready || !buildUp || !choice" class="row">{{ w('surface.none') }}</p>
    <div v-else class="grid gap-4">
      <div class="flex flex-wrap items-center gap-4">
        <h2 class="grow">{{ w('surface.title') }}</h2>
        <ChoiceField
          v-if="faces.length > 1"
          v-model="face"
          class="w-56"
          :label="w('surface.face')"
          label-hidden
          :none="faces.find(f => f.rank === 'show')?.name ?? faces[0]?.name"
          :options="faces.map(f => ({ value: f.id, label: f.name }))"
        />
      </div>
      <div v-if="choice.buildUps.length > 1" class="flex flex-wrap gap-2" role="group" :aria-label="w('surface.which')">
        <button
          v-for="(b, i) in choice.buildUps"
          :key="b.id"
          type="button"
          class="act act-quiet"
          :class="i === at ? 'border-verdigris! border-2' : ''"
          :aria-pressed="i === at"
          @click="at = i"
        >
          {{
            b.faces
              ? page.faces
                  .filter(f => b.faces!.includes(f.id))
                  .map(f => f.name)
                  .join(' · ')
              : w('surface.rest')
          }}
        </button>
      </div>
      <div class="flex flex-wrap items-center gap-x-8 gap-y-3">
        <ComposeSums
          class="grow"
          :sum="found?.sum ?? null"
          :before="first ?? null"
          :proposed="proposedSum ?? null"
          :film="sumOf(shown?.films ?? [], f => f.um)"
        />
        <div v-if="can" class="flex flex-wrap gap-2">
          <button
            v-if="page.frozen.length === 0"
            type="button"
            class="act act-quiet"
            data-test="propose"
            @click="proposal && replace(proposal)"
          >
            {{ w('surface.propose') }}
          </button>
          <button
            v-if="page.frozen.length === 0"
            type="button"
            class="act act-quiet"
            :aria-expanded="known"
            data-test="known"
            @click="known = !known"
          >
            {{ w('surface.known') }}
          </button>
          <button type="button" class="act act-quiet" :disabled="!changed" data-test="undo" @click="undo">
            {{ w('surface.undo') }}
          </button>
          <button type="button" class="act act-quiet" :disabled="!changed" @click="begin">
            {{ w('surface.asItWas') }}
          </button>
          <button type="button" class="act" :disabled="!changed || busy" data-test="take-surface" @click="save(id)">
            {{ w('surface.take') }}
          </button>
        </div>
      </div>
      <div class="grid xl:grid-cols-[1fr_21rem] gap-6">
        <section class="pt-3">
          <div class="flex flex-col md:flex-row md:items-start gap-y-4">
            <SurfaceCut
              v-if="shown"
              :surface="shown"
              :label="w('surface.cut', { face: faces.find(f => f.id === face)?.name ?? faces[0]?.name ?? '' })"
              :height="high"
              :chosen="chosen"
              :rows="rowAt"
              :failing="failing"
              @choose="choose"
            />
            <div class="grow min-w-0 w-full">
              <ol ref="list">
                <LayerRow
                  v-for="(l, i) in rows"
                  :key="l.id"
                  :layer="l"
                  :name="nameOf(l)"
                  :says="saysOf(l)"
                  :chosen="l.id === chosen"
                  :open="place === rows.length - i"
                  :failing="failing.has(l.id)"
                  :doubtful="spoken(l.id).length > 0 || whyOut(l.id) !== null"
                  :can="can"
                  :frozen="frozen.has(l.id)"
                  :bounded="can && rows.length - i >= lastFrozen"
                  :last="i === 0"
                  @choose="choose(l.id)"
                  @touch="touch(rows.length - i)"
                  @move="move(l.id, $event)"
                />
              </ol>
              <div class="relative h-14 flex items-center pl-10 text-soft">
                {{
                  w(STRIPPING.includes(buildUp.ground) ? 'surface.wood' : 'surface.there', {
                    ground: ROUTE_NAMES[buildUp.ground],
                  })
                }}
                <BoundaryButton
                  v-if="can && page.frozen.length === 0"
                  :label="w('surface.onWood')"
                  :open="place === 0"
                  @touch="touch(0)"
                />
              </div>
              <p v-if="!rows.length" class="caption">{{ w('surface.nothing') }}</p>
              <ChoiceField
                class="max-w-64 ml-10"
                :model-value="buildUp.ending"
                :label="w('surface.ending')"
                :options="optionsOf(ENDINGS, e => w(`surface.endings.${e}`))"
                :disabled="!can"
                @update:model-value="end($event as Ending)"
              />
            </div>
          </div>
        </section>
        <aside class="grid gap-5 content-start">
          <KnownSurfaces v-if="known" :facts="page.context.facts" :build-up="buildUp" @lay="layKnown" />
          <LayerOffers v-else-if="place !== null" :offers="offers" @take="take" />
          <section v-else-if="selected">
            <h2>{{ nameOf(selected) }}</h2>
            <p
              v-for="v in spoken(selected.id)"
              :key="v.rule"
              class="verdict"
              :class="GRAVE.includes(v.severity) ? 'verdict-stop' : ''"
            >
              {{ v.says }}. {{ v.reason }} {{ v.mend }}
            </p>
            <LayerFields
              :layer="selected"
              :products="page.products"
              :faces="faces"
              :recipes="page.recipes"
              :usual="usualOf(selected)"
              :frozen="frozen.has(selected.id) || !can"
              @change="change(selected.id, $event)"
              @move="move(selected.id, $event)"
              @out="out(selected.id)"
            />
          </section>
          <ComposeHand v-if="changed" v-model="leave" :hand="found?.hand ?? null" :asks-again="asksAgain" />
          <ComposeVerdicts :verdicts="verdicts" :judged="found !== null" @choose="choose" />
        </aside>
      </div>
      <FoldOut :title="w('surface.steps')" open>
        <ComposeSteps :steps="plan?.steps ?? []" :chosen="chosen" />
      </FoldOut>
    </div>
  </div>
  <PageState v-else :failed="failed" />
</template>
