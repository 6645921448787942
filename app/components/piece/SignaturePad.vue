<script setup lang="ts">
/** A signature written on glass, as a path of pen strokes in a box of 300 × 100. */
import { SIGNATURE } from '#core/papers'

const path = defineModel<string>({ required: true })
const pad = useTemplateRef<SVGSVGElement>('pad')
const writing = ref(false)
const MOST = 19_000
function at(event: PointerEvent): string {
  const box = pad.value!.getBoundingClientRect()
  const x = ((event.clientX - box.left) / box.width) * SIGNATURE.width
  const y = ((event.clientY - box.top) / box.height) * SIGNATURE.height
  const within = (n: number, most: number) => Math.min(most, Math.max(0, n)).toFixed(1)
  return `${within(x, SIGNATURE.width)} ${within(y, SIGNATURE.height)}`
}
function begin(event: PointerEvent) {
  writing.value = true
  pad.value!.setPointerCapture(event.pointerId)
  path.value += `${path.value ? ' ' : ''}M${at(event)}`
}
function move(event: PointerEvent) {
  if (writing.value && path.value.length < MOST) path.value += ` L${at(event)}`
}
</script>

<template>
  <div>
    <p>{{ w('handOver.sign') }}</p>
    <svg
      ref="pad"
      :viewBox="`0 0 ${SIGNATURE.width} ${SIGNATURE.height}`"
      class="w-full max-w-md bg-ground border border-soft touch-none cursor-crosshair"
      role="img"
      :aria-label="w('handOver.sign')"
      data-test="signature"
      @pointerdown="begin"
      @pointermove="move"
      @pointerup="writing = false"
      @pointercancel="writing = false"
    >
      <path d="M16 78H284" stroke="var(--color-line)" />
      <path :d="path" fill="none" stroke="var(--color-ink)" stroke-width="2" stroke-linecap="round" />
    </svg>
    <button v-if="path" type="button" class="underline min-h-11" @click="path = ''">{{ w('handOver.again') }}</button>
  </div>
</template>
