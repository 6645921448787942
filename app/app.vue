<script setup lang="ts">
useStaysInside()
const [session, line] = [useSession(), useLine()]
/** Who stands here comes with the page; the device keeps it for when there is no line. With one it grows no older. */
const HOUR_MS = 3_600_000
const keep = () => {
  if (session.known && !line.away) session.carry()
}
onMounted(keep)
useIntervalFn(keep, HOUR_MS)
</script>

<template>
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
