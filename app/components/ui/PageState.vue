<script setup lang="ts">
import type { Problem } from '#shared/api'

/** What stands where a page's data will be: that it is being read, or why it cannot be. */
const events = useEvents()
defineProps<{ failed?: Problem | null }>()
</script>

<template>
  <div v-if="failed" class="verdict verdict-stop" role="alert" data-test="failed">
    {{ failed.message }}
    <button class="act act-quiet mt-2 block" @click="events.again()">{{ w('tryAgain') }}</button>
  </div>
  <p v-else>{{ w('loading') }}</p>
</template>
