<script setup lang="ts">
/** The mark of a field that opens. */
defineProps<{ open: boolean }>()
</script>

<template>
  <svg width="12" height="8" class="shrink-0" :class="open ? 'rotate-180' : ''" aria-hidden="true">
    <path d="M1 1.5 6 6.5 11 1.5" fill="none" stroke="currentColor" stroke-width="1.8" />
  </svg>
</template>
