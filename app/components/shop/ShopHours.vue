<script setup lang="ts">
/** When the shop is open. */
defineProps<{ week: Readonly<Record<number, readonly (readonly number[])[]>>; zone: string }>()
const DAYS = [1, 2, 3, 4, 5, 6, 7] as const
const clock = (min: number) => `${String(Math.floor(min / 60)).padStart(2, '0')}:${String(min % 60).padStart(2, '0')}`
</script>

<template>
  <section>
    <h2>{{ w('shop.hours') }}</h2>
    <p v-for="d in DAYS" :key="d" class="row flex justify-between !py-1.5 clock">
      <span>{{ w(`weekday.${d}`) }}</span><span>{{
        (week[d] ?? []).map(([a, b]) => `${clock(a!)}–${clock(b!)}`).join(', ') || w('timetable.closed')
      }}</span>
    </p>
    <p class="caption">{{ zone }}</p>
  </section>
</template>
