<script setup lang="ts">
import type { Step } from '#core/acts'
import { layerOfStep } from '#core/plan'

/** What the plan makes of a composed surface; what it puts in by itself says why. */
const props = defineProps<{ steps: readonly Step[]; chosen: number | null }>()
const lines = computed(() => props.steps.map(s => ({ ...s, of: layerOfStep(s.key) })))
</script>

<template>
  <ol class="columns-1 md:columns-2 gap-8 mt-2">
    <li v-for="s in lines" :key="s.key" class="break-inside-avoid flex gap-3 py-1" data-test="made">
      <span class="grow" :class="s.of && s.of.layer === chosen ? 'font-bold' : ''"
        >{{ s.title
        }}<span v-if="s.of?.before" class="caption block">{{ w('surface.putInBy') }}: {{ s.why }}</span></span
      ><span class="clock text-soft">{{ s.attended_min }} min</span>
    </li>
  </ol>
</template>
