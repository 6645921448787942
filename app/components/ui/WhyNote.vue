<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'

/** Where a figure comes from, beside it: opens by a touch, closes by another anywhere. */
defineProps<{ label: string }>()

/** It opens towards the middle of the screen, where there is room for it. */
const side = ref('')
const ROOM_PX = 260
function place(event: Event) {
  const { left, right, top } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  side.value = [
    (left + right) / 2 < document.documentElement.clientWidth / 2 ? 'left-0' : 'right-0',
    top < ROOM_PX ? 'top-full' : 'bottom-full',
  ].join(' ')
}
</script>

<template>
  <Popover as="span" class="relative inline-block">
    <PopoverButton class="inline-flex items-center min-h-11 px-1 underline" @click="place">{{ label }}</PopoverButton>
    <PopoverPanel as="span" class="absolute z-30 block w-80 max-w-[80vw] p-4 bg-sheet border border-soft" :class="side"
      ><slot
    /></PopoverPanel>
  </Popover>
</template>
