<script setup lang="ts">
import { Plus } from '@lucide/vue'

/** A boundary between two layers, at which another may be put in. */
defineProps<{ label: string; open: boolean }>()
const emit = defineEmits<{ touch: [] }>()
</script>

<template>
  <button
    type="button"
    class="absolute right-1 -top-[22px] z-10 h-11 w-11 flex items-center justify-center"
    :aria-label="label"
    :aria-expanded="open"
    data-test="boundary"
    @click="emit('touch')"
  >
    <span
      class="h-7 w-7 rounded-full border flex items-center justify-center bg-sheet"
      :class="open ? 'border-verdigris border-2 text-verdigris' : 'border-soft'"
      ><Plus :size="18" aria-hidden="true"
    /></span>
  </button>
</template>
