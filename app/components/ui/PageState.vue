<script setup lang="ts">
import type { Problem } from '#shared/api'

/** What stands where a page's data will be: that it is being read, or why it cannot be. */
defineProps<{ failed?: Problem | null }>()
</script>

<template>
  <p v-if="failed" class="verdict verdict-stop" role="alert" data-test="failed">{{ failed.message }}</p>
  <p v-else>{{ w('loading') }}</p>
</template>
