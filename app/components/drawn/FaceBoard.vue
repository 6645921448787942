<script setup lang="ts">
import { type FindingKind, FINDINGS, movePlace, outline_mm, type PlaceShape, type Place } from '#core/piece'

/**
 * One face, large. A tap, a drag or the keys place a finding of the kind in hand; the chosen finding is moved the same
 * way. Keys: arrows 10 mm, with Shift 50, with Alt 1; Enter sets a corner; Escape lets go.
 */
const props = defineProps<{
  face: ExamFace
  copy: number
  findings: ExamFinding[]
  kind: FindingKind | null
  shape: Exclude<PlaceShape, 'unplaced'> | null
  chosen: number | null
  moving: boolean
  can: boolean
}>()
const emit = defineEmits<{ place: [place: Place]; choose: [id: number]; move: [id: number, place: Place]; letGo: [] }>()
const WIDTH = 740
const HEIGHT = 380
const TAP_PX = 12
const size = computed(() => outline_mm(props.face))
const scale = computed(() => Math.min(WIDTH / size.value.w, HEIGHT / size.value.h))
const EDGE = 2
const svg = useTemplateRef<SVGSVGElement>('svg')
const view = useBoardView(
  svg,
  computed(() => ({ w: size.value.w * scale.value + 2 * EDGE, h: size.value.h * scale.value + 2 * EDGE })),
)
watch([() => props.face.id, () => props.copy], view.reset)
const cross = ref({ x: 0, y: 0 })
const keyed = ref(false)
const first = ref<{ x: number; y: number } | null>(null)
const down = ref<{ x: number; y: number; dragging: boolean; id: number } | null>(null)
watch(
  [() => props.face.id, () => props.copy, () => props.kind],
  () => {
    first.value = null
    cross.value = { x: Math.round(size.value.w / 2), y: Math.round(size.value.h / 2) }
  },
  { immediate: true },
)
const shape = computed(() => props.shape ?? (props.kind ? FINDINGS[props.kind].shape : null))
const round = computed(() => props.kind !== null && FINDINGS[props.kind].round)
const chosenFinding = computed(() => props.findings.find(f => f.id === props.chosen) ?? null)
const busy = computed(() => props.can && (props.kind !== null || (props.moving && chosenFinding.value !== null)))

const clamp = (v: number, most: number) => Math.round(Math.min(Math.max(v, 0), most) * 10) / 10
function at(event: PointerEvent) {
  const { x, y } = view.at({ x: event.clientX, y: event.clientY })
  return {
    x: clamp((x - EDGE) / scale.value, size.value.w),
    y: clamp((y - EDGE) / scale.value, size.value.h),
  }
}
function placeOf(a: { x: number; y: number }, b: { x: number; y: number }, as: Exclude<PlaceShape, 'unplaced'>): Place {
  return {
    shape: as,
    copy: props.copy,
    x_mm: a.x,
    y_mm: a.y,
    x2_mm: as === 'point' ? 0 : b.x,
    y2_mm: as === 'point' ? 0 : b.y,
    size_mm: as === 'area' || as === 'face' ? 0 : Math.max(0.5, FINDINGS[props.kind!].size_mm || 1),
  }
}
const draft = computed(() => {
  if (!props.kind || !shape.value || shape.value === 'point' || shape.value === 'face') return null
  const from = first.value ?? (down.value?.dragging ? down.value : null)
  return from && (from.x !== cross.value.x || from.y !== cross.value.y)
    ? { place: placeOf(from, cross.value, shape.value), grade: 2, wish: 'mend' as const, round: round.value, number: 0 }
    : null
})
/** A corner is set: one for a point, two for a line or an area. */
function set(p: { x: number; y: number }) {
  if (props.moving && chosenFinding.value) {
    const { place } = chosenFinding.value
    const two = place.shape !== 'point'
    const middle = {
      x: two ? (place.x_mm + place.x2_mm) / 2 : place.x_mm,
      y: two ? (place.y_mm + place.y2_mm) / 2 : place.y_mm,
    }
    emit(
      'move',
      chosenFinding.value.id,
      movePlace({ ...place, copy: props.copy }, p.x - middle.x, p.y - middle.y, props.face),
    )
    return
  }
  if (!props.kind || !shape.value) return
  if (shape.value === 'point' || shape.value === 'face') {
    emit('place', placeOf(p, p, shape.value))
    return
  }
  if (!first.value) {
    first.value = p
    return
  }
  const from = first.value
  first.value = null
  finish(from, p)
}
function finish(from: { x: number; y: number }, to: { x: number; y: number }) {
  const flat = shape.value === 'area' && (Math.abs(from.x - to.x) < 1 || Math.abs(from.y - to.y) < 1)
  if (flat || (from.x === to.x && from.y === to.y)) {
    useNotes().show(w('exam.tooSmall'), 'stop')
    return
  }
  emit('place', placeOf(from, to, shape.value!))
}
/** Where a pen is at work, a hand that rests on the glass beside it draws nothing. */
const PALM_MS = 1000
let pen_ms = -PALM_MS
function isPalm({ pointerType, timeStamp }: PointerEvent): boolean {
  if (pointerType === 'pen') pen_ms = timeStamp
  return pointerType === 'touch' && timeStamp - pen_ms < PALM_MS
}
function press(event: PointerEvent) {
  if (isPalm(event)) return
  if (view.press(event)) {
    // the first of two fingers was no touch
    down.value = null
    return
  }
  if (!busy.value) return
  keyed.value = false
  const p = at(event)
  down.value = { ...p, dragging: false, id: event.pointerId }
  if (!first.value) cross.value = p
  svg.value!.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (isPalm(event) || view.move(event)) return
  if (down.value && down.value.id !== event.pointerId) return
  if (!busy.value || (!down.value && !first.value)) return
  cross.value = at(event)
  if (
    down.value &&
    Math.hypot(cross.value.x - down.value.x, cross.value.y - down.value.y) * scale.value * view.zoom.value > TAP_PX
  )
    down.value.dragging = true
}
function release(event: PointerEvent) {
  if (view.release(event) || down.value?.id !== event.pointerId) return
  const from = down.value
  down.value = null
  if (!busy.value || !from) return
  const p = at(event)
  if (from.dragging && !first.value && props.kind && shape.value !== 'point' && shape.value !== 'face') finish(from, p)
  else set(p)
}
const STEP = (event: KeyboardEvent) => {
  if (event.altKey) return 1
  if (event.shiftKey) return 50
  return 10
}
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function key(event: KeyboardEvent) {
  if (event.target !== svg.value) return
  const arrow = ARROWS[event.key]
  if (arrow && busy.value) {
    keyed.value = true
    cross.value = {
      x: clamp(cross.value.x + arrow[0] * STEP(event), size.value.w),
      y: clamp(cross.value.y + arrow[1] * STEP(event), size.value.h),
    }
    event.preventDefault()
  } else if ((event.key === 'Enter' || event.key === ' ') && busy.value) {
    set({ ...cross.value })
    event.preventDefault()
  } else if (event.key === 'Escape') {
    first.value = null
    emit('letGo')
  }
}
const says = computed(() => {
  if (!busy.value) return ''
  if (props.moving) return w('exam.moveHere')
  if (first.value) return w('exam.otherEnd')
  if (shape.value === 'point') return w('exam.touchPoint')
  if (shape.value === 'face') return w('exam.touchFace')
  return w('exam.touchTwo')
})
const reading = computed(() => `${Math.round(cross.value.x)}, ${Math.round(cross.value.y)} mm`)
</script>

<template>
  <div>
    <p class="mb-1 min-h-6">
      <strong v-if="says" class="text-verdigris">{{ says }}</strong><span v-else-if="can" class="caption">{{
        w('exam.boardHint')
      }}</span
      >{{ ' ' }} <span v-if="busy && (keyed || first)" class="clock">{{ reading }}</span><span
        class="sr-only"
        aria-live="polite"
        >{{ keyed ? reading : '' }}</span
      >
    </p>
    <svg
      ref="svg"
      :viewBox="view.viewBox.value"
      :style="{
        maxWidth: `${size.w * scale + 2 * EDGE}px`,
        width: '100%',
        touchAction: busy || view.zoom.value > 1 ? 'none' : 'pan-x pan-y',
      }"
      class="board block"
      :class="busy ? 'cursor-crosshair' : ''"
      tabindex="0"
      role="group"
      data-test="board"
      :data-px-per-mm="scale"
      :aria-label="`${face.part}, ${face.name}. ${says || w('exam.boardHint')}`"
      @pointerdown="press"
      @pointermove="drag"
      @pointerup="release"
      @pointercancel="(view.release($event), (down = null))"
      @wheel="view.wheel"
      @keydown="key"
    >
      <FindingHatch />
      <g :transform="`translate(${EDGE} ${EDGE})`">
        <rect
          v-bind="faceRect(face, size.w * scale, size.h * scale)"
          fill="var(--color-sheet)"
          stroke="var(--color-ink)"
          stroke-width="1.5"
        />
        <g
          v-for="f in findings"
          :key="f.id"
          role="button"
          tabindex="0"
          class="cursor-pointer mark"
          :data-finding="f.id"
          :aria-label="`${f.number}: ${w(`finding.${f.kind}`)}, ${w('examine.grade')} ${f.grade}`"
          :aria-pressed="f.id === chosen"
          @click="kind === null && !moving && emit('choose', f.id)"
          @keydown.enter.stop.prevent="emit('choose', f.id)"
          @keydown.space.stop.prevent="emit('choose', f.id)"
        >
          <FindingShape :finding="f" :face="face" :scale="scale" :chosen="f.id === chosen" />
        </g>
        <FindingShape v-if="draft" :finding="draft" :face="face" :scale="scale" small chosen />
        <g
          v-if="busy && (keyed || first || down)"
          pointer-events="none"
          stroke="var(--color-verdigris)"
          stroke-width="1.5"
        >
          <line :x1="cross.x * scale" y1="0" :x2="cross.x * scale" :y2="size.h * scale" />
          <line x1="0" :y1="cross.y * scale" :x2="size.w * scale" :y2="cross.y * scale" />
          <circle v-if="first" :cx="first.x * scale" :cy="first.y * scale" r="6" fill="var(--color-verdigris)" />
        </g>
      </g>
    </svg>
    <button v-if="view.zoom.value > 1" class="act act-quiet mt-2" @click="view.reset">{{ w('exam.wholeFace') }}</button>
  </div>
</template>

<style scoped>
.board:focus-visible {
  outline: 3px solid var(--color-verdigris);
  outline-offset: 3px;
}
.mark:focus-visible {
  outline: none;
}
.mark:focus-visible :deep(polygon) {
  stroke: var(--color-verdigris);
  stroke-width: 4;
}
</style>
