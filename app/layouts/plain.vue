<script setup lang="ts">
useEvening()
</script>

<template>
  <main class="mx-auto px-5 py-8" :class="$route.meta.wide ? 'max-w-7xl' : 'max-w-3xl'">
    <slot />
    <FootNote />
  </main>
</template>
