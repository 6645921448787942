<script setup lang="ts">
import { GripVertical } from '@lucide/vue'
import type { Layer } from '#core/build'
import { layerFill } from '#core/section'

/** One layer: what it is, how much of it, where; above it the boundary at which another may be put in. */
const props = defineProps<{
  layer: Layer
  name: string
  says: string
  chosen: boolean
  /** the boundary above it was touched */
  open: boolean
  failing: boolean
  doubtful: boolean
  can: boolean
  frozen: boolean
  /** may another be put in above it? */
  bounded: boolean
  last: boolean
}>()
const emit = defineEmits<{ choose: []; touch: []; move: [by: number] }>()
function keys(e: KeyboardEvent) {
  const by = { ArrowUp: 1, ArrowDown: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  emit('move', by)
}
const edge = computed(() => {
  if (props.failing) return 'border-l-madder'
  if (props.doubtful) return 'border-l-ochre'
  return props.chosen ? 'border-l-verdigris' : 'border-l-transparent'
})
</script>

<template>
  <li
    class="layer-row relative flex items-center gap-2 h-16 border-b border-line border-l-[5px] bg-sheet"
    :class="[edge, chosen ? 'bg-verdigris-wash!' : '']"
    data-test="layer"
    :data-layer="layer.id"
    :data-act="layer.act"
  >
    <button
      v-if="can && !frozen"
      type="button"
      class="grip min-h-12 w-8 flex items-center justify-center text-soft cursor-grab touch-none"
      :aria-label="w('surface.grip', { layer: name })"
      @keydown="keys"
    >
      <GripVertical :size="20" aria-hidden="true" />
    </button>
    <span v-else class="w-8" />
    <span class="w-5 h-9 border border-line" :style="{ background: layerFill(layer.product ?? '') }" />
    <button
      type="button"
      class="grow min-w-0 min-h-14 text-left"
      :aria-expanded="chosen"
      data-test="choose"
      @click="emit('choose')"
    >
      <strong class="block truncate">{{ name }}</strong><span class="caption block truncate">{{ says }}</span>
    </button>
    <BoundaryButton
      v-if="bounded"
      :label="last ? w('surface.onTop') : w('surface.putIn')"
      :open="open"
      @touch="emit('touch')"
    />
  </li>
</template>
