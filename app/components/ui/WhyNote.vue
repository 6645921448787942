<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'

/** Where a figure comes from, beside it: opens by a touch, closes by another anywhere. */
defineProps<{ label: string }>()
</script>

<template>
  <Popover as="span" class="relative inline-block">
    <PopoverButton class="inline-flex items-center min-h-11 px-1 underline">{{ label }}</PopoverButton>
    <PopoverPanel
      as="span"
      class="absolute right-0 bottom-full z-30 block w-80 max-w-[80vw] p-4 bg-sheet border border-soft"
      ><slot
    /></PopoverPanel>
  </Popover>
</template>
