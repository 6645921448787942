<script setup lang="ts">
import { type FindingKind, FINDINGS, type PlaceShape, type Place, UNPLACED, wholeFace } from '#core/piece'

/** Faces to scale: the map of all, or one large with its findings. */
const props = defineProps<{ exam: Examination; load: () => Promise<void>; can: boolean; id: number }>()
const { page, load: loadPiece } = inject(PIECE)!
const session = useSession()
const route = useRoute()
const router = useRouter()
const acts = useFindingActs(() => props.id, props.load)
const faceId = computed(() => Number(route.query.face) || null)
const copy = computed(() => Number(route.query.copy) || 1)
const face = computed(() => props.exam.faces.find(f => f.id === faceId.value) ?? null)
const chosen = ref<number | null>(Number(route.query.finding) || null)
const finding = computed(() => props.exam.findings.find(f => f.id === chosen.value) ?? null)
const kind = ref<FindingKind | null>(null)
const shape = ref<Exclude<PlaceShape, 'unplaced'> | null>(null)
const grade = ref(2)
const moving = ref(false)
/** a finding that is known and waits to be drawn */
const drawing = ref<number | null>(null)
const own = computed(() =>
  props.exam.findings.filter(
    f =>
      f.faceId === faceId.value && f.place.shape !== 'unplaced' && (f.place.copy === 0 || f.place.copy === copy.value),
  ),
)
const unplaced = computed(() => props.exam.findings.filter(f => f.place.shape === 'unplaced'))
const damage = computed(() =>
  props.exam.damage.filter(d => d.area_m2 > 0 && (!faceId.value || d.faceId === faceId.value)).slice(0, 8),
)
const name = (id: number) => {
  const f = props.exam.faces.find(x => x.id === id)
  return f ? `${f.part}, ${f.name}` : ''
}

/** A finding that was not placed yet is said of its part, not of a face. */
const partOf = (id: number) => w('exam.somewhere', { part: props.exam.faces.find(x => x.id === id)?.part ?? '' })

function open(id: number, n: number) {
  void router.replace({ query: { face: id, ...(n > 1 ? { copy: n } : {}) } })
  if (drawing.value === null) chosen.value = null
  moving.value = false
}
function back() {
  kind.value = null
  drawing.value = null
  chosen.value = null
  void router.replace({ query: {} })
}
function take(k: FindingKind) {
  kind.value = kind.value === k ? null : k
  shape.value = null
  chosen.value = null
  drawing.value = null
  moving.value = false
}
/** The copy that is shown, 0 where there is one only. */
const thisCopy = computed(() => ((face.value?.copies ?? 1) > 1 ? copy.value : 0))
const busy = ref(false)
/** One place at a time: a second tap while the first is on its way does nothing. */
async function placed(place: Place, onCopy = thisCopy.value) {
  if (busy.value) return
  busy.value = true
  try {
    await put(place, onCopy)
  } finally {
    busy.value = false
  }
}
async function put(drawn: Place, onCopy: number) {
  const place = drawn.shape === 'face' ? wholeFace(onCopy) : drawn
  if (drawing.value !== null) {
    const f = props.exam.findings.find(x => x.id === drawing.value)
    drawing.value = null
    kind.value = null
    if (
      f &&
      (await acts.change(f, { faceId: faceId.value!, place }, w('exam.undoDrawn', { kind: w(`finding.${f.kind}`) })))
    )
      chosen.value = f.id
    return
  }
  const k = kind.value!
  const made = await acts.add(
    {
      faceId: faceId.value!,
      kind: k,
      grade: grade.value,
      wish: 'mend',
      note: '',
      place,
    },
    w('exam.undoAdded', { kind: w(`finding.${k}`) }),
  )
  if (made) {
    chosen.value = made
    kind.value = null
  }
}
function draw(f: ExamFinding) {
  drawing.value = f.id
  kind.value = f.kind
  shape.value = null
  chosen.value = null
  moving.value = false
  if (!faceId.value && props.exam.faces.length === 1) open(props.exam.faces[0]!.id, 1)
}
async function move(id: number, place: Place) {
  moving.value = false
  const f = props.exam.findings.find(x => x.id === id)
  if (f) await acts.change(f, { place }, w('exam.undoMoved', { kind: w(`finding.${f.kind}`) }))
}
async function change(next: Record<string, unknown>) {
  if (finding.value)
    await acts.change(finding.value, next, w('exam.undoChanged', { kind: w(`finding.${finding.value.kind}`) }))
}
/** To another face: a whole face stays whole, a place is drawn there anew. */
async function toFace(faceId: number) {
  const f = finding.value
  if (!f || f.faceId === faceId) return
  const place: Place = f.place.shape === 'face' ? wholeFace() : UNPLACED
  const moved = await acts.change(f, { faceId, place }, w('exam.undoMoved', { kind: w(`finding.${f.kind}`) }))
  if (!moved) return
  open(faceId, 1)
  if (place.shape === 'face') chosen.value = f.id
  else draw(f)
}
async function withdraw() {
  const f = finding.value
  chosen.value = null
  if (f) await acts.withdraw(f, w('exam.undoWithdrawn', { kind: w(`finding.${f.kind}`) }))
}
function choose(f: ExamFinding) {
  if (f.place.shape !== 'unplaced' && f.faceId !== faceId.value)
    void router.replace({ query: { face: f.faceId, ...(f.place.copy > 1 ? { copy: f.place.copy } : {}) } })
  chosen.value = f.id
  kind.value = null
}
useEventListener('keydown', event => {
  if (
    (event.ctrlKey || event.metaKey) &&
    event.key === 'z' &&
    !(event.target as HTMLElement).matches('input, textarea')
  ) {
    event.preventDefault()
    void acts.undo()
  }
})
const shapeNow = computed(() => shape.value ?? (kind.value ? FINDINGS[kind.value].shape : null))
/** The whole face is placed by saying so; the other shapes are drawn. */
function shaped(x: Exclude<PlaceShape, 'unplaced'>) {
  if (x === 'face') void placed({ ...wholeFace(), shape: 'face' })
  else shape.value = x
}
function letGo() {
  kind.value = null
  moving.value = false
  drawing.value = null
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.65fr)_minmax(0,1fr)] gap-x-8 gap-y-6">
    <section>
      <div class="flex flex-wrap items-center gap-3 min-h-12 mb-2">
        <template v-if="face"
          ><button class="act act-quiet" @click="back">{{ w('exam.allFaces') }}</button>
          <h2 class="grow">
            {{ face.part }}, {{ face.name }}{{ face.copies > 1 ? ` ${copy} / ${face.copies}` : '' }}
            <span class="caption clock">{{ face.length_typed }} × {{ face.width_typed }}</span>
          </h2></template
        >
        <h2 v-else class="grow">
          {{ drawing === null ? w('exam.facesTitle') : w('exam.whichFace') }}
          <span class="caption clock">{{ page!.area_m2.toFixed(2) }} m²</span>
        </h2>
        <button v-if="acts.last.value && can" class="act act-quiet" data-test="undo" @click="acts.undo()">
          {{ w('exam.undo', { what: acts.last.value }) }}
        </button>
      </div>
      <FaceBoard
        v-if="face"
        :face="face"
        :copy="copy"
        :findings="own"
        :kind="kind"
        :shape="shape"
        :chosen="chosen"
        :moving="moving"
        :can="can"
        @place="placed"
        @choose="chosen = $event"
        @move="move"
        @let-go="letGo"
      />
      <FaceMap v-else :faces="exam.faces" :findings="exam.findings" @open="open" />
      <p v-if="!exam.faces.length" class="verdict">{{ w('exam.noFace') }}</p>

      <table v-if="damage.length" class="w-full text-left mt-4" data-test="damage">
        <thead class="caption">
          <tr>
            <th>{{ w('exam.damaged') }}</th>
            <th>{{ w('intake.face') }}</th>
            <th class="text-right">{{ w('exam.places') }}</th>
            <th class="text-right">cm²</th>
            <th class="text-right">%</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in damage" :key="`${d.faceId}${d.kind}`" class="border-t border-line">
            <td class="py-1.5">{{ w(`finding.${d.kind}`) }}</td>
            <td>{{ name(d.faceId) }}</td>
            <td class="text-right col">{{ d.places }}</td>
            <td class="text-right col">
              {{ d.area_m2 < 0.001 ? (d.area_m2 * 1e4).toFixed(1) : Math.round(d.area_m2 * 1e4) }}
            </td>
            <td class="text-right col">{{ (d.share * 100).toFixed(d.share < 0.1 ? 1 : 0) }}</td>
          </tr>
        </tbody>
      </table>
    </section>

    <section>
      <FindingDetail
        v-if="finding && can"
        :finding="finding"
        :exam="exam"
        :moving="moving"
        @change="change"
        @withdraw="withdraw"
        @move="moving = !moving"
        @draw="draw(finding)"
        @face="toFace"
        @close="chosen = null"
      />
      <FindingChoice
        v-else-if="face && can"
        v-model:grade="grade"
        :kind="kind"
        :shape="shapeNow"
        :known="drawing !== null"
        :copy="thisCopy"
        :of="face.copies"
        @kind="take"
        @shape="shaped"
        @whole="placed(wholeFace(), $event)"
        @let-go="letGo"
      />
      <template v-if="!kind && !finding">
        <FoldOut
          v-if="session.may('take-in') && page!.piece.state === 'active' && !face"
          class="mb-3"
          :title="w('examine.change')"
        >
          <PieceWish :piece="page!.piece" @changed="loadPiece" />
        </FoldOut>
        <template v-if="!face">
          <NuxtLink v-if="exam.walk.next && can" :to="`/pieces/${id}/walk`" class="act w-full no-underline">{{
            exam.walk.done ? w('exam.goOn', { done: exam.walk.done, total: exam.walk.total }) : w('exam.begin')
          }}</NuxtLink>
          <h2 class="mt-4">{{ w('exam.mind') }}</h2>
          <VerdictList :id="id" :verdicts="exam.verdicts" :can="can" @changed="load" />
          <p v-if="!exam.verdicts.length" class="mt-1">{{ w('exam.nothingToMind') }}</p>
        </template>
        <h2 class="mt-5">{{ w('examine.findings') }}</h2>
        <div
          v-for="f in exam.findings.filter(x => !face || x.faceId === face.id)"
          :key="f.id"
          class="row flex items-center gap-3"
          data-test="finding"
          :data-id="f.id"
        >
          <button class="grow text-left" @click="choose(f)">
            <strong
              ><span class="clock">{{ f.number }}</span> {{ w(`finding.${f.kind}`) }}</strong
            >, {{ w('examine.grade') }} {{ f.grade
            }}<span class="caption block"
              >{{ f.place.shape === 'unplaced' ? partOf(f.faceId) : name(f.faceId) }} · {{ w(`wish.${f.wish}`)
              }}{{ f.photographs.length ? ` · ${w('exam.pictures', { n: f.photographs.length })}` : '' }}
              {{ f.note }}</span
            >
          </button>
          <button v-if="can && f.place.shape === 'unplaced'" class="act act-quiet" @click="draw(f)">
            {{ w('exam.drawIt') }}
          </button>
        </div>
        <p v-if="!exam.findings.length" class="mt-1">{{ can ? w('exam.noFindingYet') : w('examine.noFinding') }}</p>
        <p v-if="unplaced.length && !face" class="caption mt-2">{{ w('exam.unplaced', { n: unplaced.length }) }}</p>
      </template>
    </section>
  </div>
</template>
