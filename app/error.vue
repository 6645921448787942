<script setup lang="ts">
import type { NuxtError } from '#app'

/** What stands where a page could not be shown. When the server was away, it comes back by itself. */
const props = defineProps<{ error: NuxtError }>()
const AGAIN_MS = 3000
const away = computed(() => props.error.statusCode === 503 || props.error.statusCode === 500)
async function look() {
  const health = await fetch('/api/health').catch(() => null)
  if (health?.ok) location.reload()
}
useIntervalFn(() => {
  if (away.value) void look()
}, AGAIN_MS)
</script>

<template>
  <main class="mx-auto max-w-xl px-5 py-16 grid gap-4">
    <h1>{{ w(away ? 'away.title' : 'away.other') }}</h1>
    <p v-if="away" role="status">{{ w('away.says') }}</p>
    <p v-else>{{ error.message }}</p>
    <button v-if="away" class="act justify-self-start" @click="look">{{ w('away.again') }}</button>
    <a v-else href="/" class="act justify-self-start">{{ w('away.home') }}</a>
  </main>
</template>
