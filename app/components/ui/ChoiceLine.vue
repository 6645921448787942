<script setup lang="ts">
/** One line of an open list. */
defineProps<{ active: boolean; selected: boolean; disabled?: boolean }>()
</script>

<template>
  <span
    class="flex items-center min-h-12 px-4 py-1.5 border-l-4"
    :class="[
      active ? 'bg-verdigris-wash' : '',
      selected ? 'border-verdigris font-bold' : 'border-transparent',
      disabled ? 'text-soft' : 'cursor-pointer',
    ]"
    ><slot
  /></span>
</template>
