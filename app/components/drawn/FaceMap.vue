<script setup lang="ts">
import { layFaces, scaleMark_mm } from '#core/examine'

/** All faces at one scale, laid out by part. Selecting one opens it. */
const props = defineProps<{ faces: ExamFace[]; findings: ExamFinding[] }>()
const emit = defineEmits<{ open: [faceId: number, copy: number] }>()
const WIDTH = 740
const HEIGHT = 400
const layout = computed(() => layFaces(props.faces, WIDTH, HEIGHT))
const mark = computed(() => scaleMark_mm(layout.value.px_per_mm, WIDTH))
const faceOf = computed(() => new Map(props.faces.map(f => [f.id, f])))
const on = (faceId: number, copy: number) =>
  props.findings.filter(f => f.faceId === faceId && (f.place.copy === 0 || f.place.copy === copy))
</script>

<template>
  <svg
    :viewBox="`-2 -2 ${WIDTH + 4} ${layout.height + 34}`"
    class="w-full max-h-[30rem]"
    role="group"
    :aria-label="w('exam.mapLabel')"
    data-test="face-map"
    :data-px-per-mm="layout.px_per_mm"
  >
    <FindingHatch />
    <text v-for="p in layout.parts" :key="p.part" :x="p.x" :y="p.y" font-size="14" fill="var(--color-soft)">
      {{ p.part }}
    </text>
    <g
      v-for="f in layout.faces"
      :key="`${f.faceId}-${f.copy}`"
      role="button"
      tabindex="0"
      class="cursor-pointer face"
      :data-face="f.faceId"
      :data-copy="f.copy"
      :transform="`translate(${f.x} ${f.y})`"
      :aria-label="
        w('exam.openFace', {
          face: `${faceOf.get(f.faceId)!.part}, ${faceOf.get(f.faceId)!.name}`,
          copy: faceOf.get(f.faceId)!.copies > 1 ? ` ${f.copy}` : '',
          n: on(f.faceId, f.copy).length,
        })
      "
      @click="emit('open', f.faceId, f.copy)"
      @keydown.enter.prevent="emit('open', f.faceId, f.copy)"
      @keydown.space.prevent="emit('open', f.faceId, f.copy)"
    >
      <rect v-bind="faceRect(faceOf.get(f.faceId)!, f.w, f.h)" class="paper" />
      <svg :width="f.w" :height="f.h" overflow="hidden">
        <FindingShape
          v-for="x in on(f.faceId, f.copy)"
          :key="x.id"
          :finding="x"
          :face="faceOf.get(f.faceId)!"
          :scale="layout.px_per_mm"
          small
        />
      </svg>
      <text v-if="f.w > 60 && f.h > 24" x="6" :y="f.h - 7" font-size="13" fill="var(--color-soft)">
        {{ faceOf.get(f.faceId)!.name }}{{ faceOf.get(f.faceId)!.copies > 1 ? ` ${f.copy}` : '' }}
      </text>
    </g>
    <g :transform="`translate(0 ${layout.height + 14})`">
      <path :d="`M0 0 v8 h${mark * layout.px_per_mm} v-8`" fill="none" stroke="var(--color-ink)" stroke-width="1.5" />
      <text :x="mark * layout.px_per_mm + 8" y="9" font-size="14" fill="var(--color-soft)">
        {{ mark }} mm · {{ w('exam.oneScale') }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.paper {
  fill: var(--color-sheet);
  stroke: var(--color-ink);
  stroke-width: 1.2;
}
.face:hover .paper,
.face:focus-visible .paper {
  fill: var(--color-verdigris-wash);
  stroke: var(--color-verdigris);
  stroke-width: 2.5;
}
.face:focus-visible {
  outline: none;
}
</style>
