<script setup lang="ts">
/** Pieces of which something stored cannot be understood; the rest of the page goes on. */
defineProps<{ pieces: readonly { id: number; name: string; why: string }[] }>()
</script>

<template>
  <div v-for="p in pieces" :key="p.id" class="verdict verdict-stop mb-3" role="status" data-test="cannot-read">
    <NuxtLink :to="`/pieces/${p.id}/route`" class="no-underline"
      ><strong>{{ p.id }} {{ p.name }}</strong></NuxtLink
    >
    <span class="block">{{ w('cannotRead.title') }}: {{ p.why }}. {{ w('cannotRead.meanwhile') }}</span>
  </div>
</template>
