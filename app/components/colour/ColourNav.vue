<script setup lang="ts">
const route = useRoute()
const pages = [
  ['/colour', 'match'],
  ['/colour/recipes', 'recipes'],
  ['/colour/readings', 'readings'],
  ['/colour/colourants', 'colourants'],
  ['/mixing', 'mixing'],
] as const
const here = (to: string) => (to === '/colour' ? route.path === to : route.path.startsWith(to))
useCurrentInView(useTemplateRef('row'))
</script>

<template>
  <nav ref="row" class="flex gap-1 border-b border-line mb-4 overflow-x-auto" :aria-label="w('rail.colour')">
    <NuxtLink
      v-for="[to, word] in pages"
      :key="to"
      :to="to"
      class="px-5 min-h-12 inline-flex items-center no-underline border-b-4 -mb-px"
      :class="here(to) ? 'border-verdigris font-bold' : 'border-transparent text-soft'"
      :aria-current="here(to) ? 'page' : undefined"
      >{{ w(`colour.nav.${word}`) }}</NuxtLink
    >
  </nav>
</template>
