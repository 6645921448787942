<script setup lang="ts">
/** In the header: is there a line, how old is what stands here, what waits to go in; and a newer program. */
const events = useEvents()
const line = useLine()
const clock = useClock()
const waiting = useWaiting()
const program = useProgram()
const { day, time, dayTime, span } = useFormat()
const moment = (ms: number) => (day(ms) === day(clock.now) ? time(ms) : dayTime(ms))
const looks = ref(false)
const away = computed(() => line.away || !events.connected)
/** How old what stands here is. */
const asOf = computed(() => {
  const ms = line.asOf_ms
  if (ms === null) return ''
  const ago = clock.now - ms
  const at = moment(ms)
  return ago < 60_000 ? w('line.asOfNow', { at }) : w('line.asOf', { at, span: span(ago) })
})
</script>

<template>
  <span v-if="away" class="text-madder font-semibold" role="status" data-test="away"
    >{{ line.away && line.since_ms ? w('line.away', { at: moment(line.since_ms) }) : w('line.gone') }} {{ asOf }}</span
  >
  <span v-else-if="line.slow" class="font-semibold" role="status">{{ w('slow') }}</span>
  <span v-if="waiting.cannot" class="text-madder" role="status" data-test="keeps-nothing">{{ w('waiting.full') }}</span>
  <button v-if="waiting.acts.length" class="chip" data-test="waiting" @click="looks = true">
    {{ w('waiting.open', { n: waiting.acts.length }) }}
  </button>
  <span v-if="program.offered" role="status" data-test="newer"
    >{{ w('program.new') }}
    <button class="underline min-h-11 px-1" :title="w('program.later')" @click="program.take">
      {{ w('program.take') }}
    </button></span
  >
  <LazyWaitingBox v-if="looks" @close="looks = false" />
</template>
