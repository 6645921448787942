<script setup lang="ts">
/** How far a long work is, `done` between 0 and 1. */
defineProps<{ label: string; done: number }>()
</script>

<template>
  <p class="flex flex-wrap items-center gap-3" role="status">
    <progress :value="done" max="1" class="w-64 h-3 accent-verdigris" :aria-label="label" /><span class="clock">{{
      `${Math.round(done * 100)} %`
    }}</span>
    <slot>{{ label }}</slot>
  </p>
</template>
