<script setup lang="ts">
/** Beside a day that is about to be promised: what the timetable says of it, where it is not safe. */
const props = defineProps<{ due: string | null }>()
const { day } = useFormat()
const { at } = useMoment()
const { page } = inject(PIECE)!
const isoDay = (moment: string) => at(moment).toISODate()!
/** Days are compared as the shop has them: a piece that is ready on a day leaves on it. */
const early = computed(() => {
  const { likely_at: likely, safe_at: safe } = page.value?.outlook ?? {}
  if (!props.due || !likely || !safe || isoDay(safe) <= props.due) return null
  return { likely: day(likely), safe: day(safe), stop: isoDay(likely) > props.due }
})
</script>

<template>
  <p v-if="early" class="verdict" :class="{ 'verdict-stop': early.stop }" role="status" data-test="due-warning">
    {{ w(early.stop ? 'promise.tooEarly' : 'promise.notSafe', early) }}
  </p>
</template>
