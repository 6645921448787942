<script setup lang="ts">
import { DateTime } from 'luxon'

/** A moment in the shop's time: a day, and a time of it as "14:05". Null while it is no moment. */
const props = defineProps<{ label: string; error?: string }>()
const model = defineModel<number | null>({ required: true })
const { at } = useMoment()
const { time, zone } = useFormat()
const day = ref<string | null>(null)
const clock = ref('')
const CLOCK = /^([01]?\d|2[0-3])[:.]?([0-5]\d)$/
const wrong = computed(() => clock.value.trim() !== '' && !CLOCK.test(clock.value.trim()))
watch(
  model,
  ms => {
    if (ms === null || ms === said()) return
    day.value = at(ms).toISODate()
    clock.value = time(ms)
  },
  { immediate: true },
)
/** What is typed, to the minute; a moment that nobody touched keeps its seconds. */
function said(): number | null {
  const [, hour, minute] = CLOCK.exec(clock.value.trim()) ?? []
  if (!day.value || hour === undefined) return null
  const typed = DateTime.fromISO(day.value, { zone: zone() }).set({ hour: Number(hour), minute: Number(minute) })
  const ms = typed.toMillis()
  return model.value !== null && Math.floor(model.value / 60_000) * 60_000 === ms ? model.value : ms
}
watch([day, clock], () => (model.value = said()))
const id = useId()
const says = computed(() => props.error ?? (wrong.value ? w('date.clock') : undefined))
</script>

<template>
  <div role="group" :aria-label="label">
    <div class="grid grid-cols-[minmax(0,1fr)_6rem] gap-2 items-end">
      <DateField v-model="day" :label="label" />
      <div>
        <label :for="id" class="sr-only">{{ w('date.time', { field: label }) }}</label>
        <input
          :id="id"
          v-model="clock"
          class="field clock"
          inputmode="numeric"
          autocomplete="off"
          placeholder="14:05"
          :aria-invalid="Boolean(says)"
          :aria-describedby="says ? `${id}-error` : undefined"
        />
      </div>
    </div>
    <p v-if="says" :id="`${id}-error`" class="text-madder">{{ says }}</p>
  </div>
</template>
