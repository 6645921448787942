<script setup lang="ts">
import type { ColourDrawn, FilmDrawn, Shape } from '#core/section'

/** Shapes of a drawing; a touch on one that stands for a film or a colour tells it. */
const props = defineProps<{ shapes: readonly Shape[]; chosen?: number | null; keys?: boolean }>()
const emit = defineEmits<{ touch: [of: FilmDrawn | ColourDrawn] }>()
const touched = ({ of }: Shape) => of && of.step !== null && emit('touch', of)
/** A film that can be opened is a button; the chosen one has a rim. */
const more = ({ of }: Shape) => ({
  ...(of && of.step !== null ? { style: 'cursor:pointer' } : {}),
  ...(props.keys && of && of.step !== null && 'um' in of
    ? { 'role': 'button', 'tabindex': 0, 'aria-label': of.name }
    : {}),
  ...(of && 'um' in of && of.layer !== null && of.layer === props.chosen
    ? { 'stroke': 'var(--color-verdigris)', 'stroke-width': 2.5 }
    : {}),
})
</script>

<template>
  <component
    :is="s.tag"
    v-for="(s, i) in shapes"
    :key="i"
    v-bind="{ ...s.at, ...more(s) }"
    @click="touched(s)"
    @keydown.enter="touched(s)"
    >{{ s.text }}</component
  >
</template>
