<script setup lang="ts">
import type { ComposedSum } from '~/workers/compose.worker'

/** What the composed surface comes to, with what it was before beside it. */
const props = defineProps<{ sum: ComposedSum | null; before: ComposedSum | null; film: number }>()
const { hours, money, day } = useFormat()
const was = (differs: boolean, says: string) => (differs ? w('surface.before', { was: says }) : '')
const lines = computed(() => {
  const { sum, before } = props
  if (!sum) return []
  const old = before ?? sum
  return [
    [w('surface.hands'), hours(sum.minutes), was(old.minutes !== sum.minutes, hours(old.minutes))],
    [w('surface.price'), money(sum.total_minor), was(old.total_minor !== sum.total_minor, money(old.total_minor))],
    [w('surface.ready'), day(sum.likely_ms), was(day(old.likely_ms) !== day(sum.likely_ms), day(old.likely_ms))],
  ] as const
})
</script>

<template>
  <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 clock [&>dd]:text-right" data-test="sums">
    <template v-for="[name, value, old] in lines" :key="name"
      ><dt>{{ name }}</dt>
      <dd>
        <strong>{{ value }}</strong><span v-if="old" class="caption block">{{ old }}</span>
      </dd></template
    >
    <dt>{{ w('surface.filmSum') }}</dt>
    <dd>
      <strong>{{ Math.round(film) }} µm</strong>
    </dd>
  </dl>
</template>
