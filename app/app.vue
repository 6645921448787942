<script setup lang="ts">
useStaysInside()
</script>

<template>
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
