<script setup lang="ts">
import { DateTime } from 'luxon'
import type { LogGroup } from '#shared/schemas'

/** What was written in the shop, by day. */
const route = useRoute()
const router = useRouter()
const group = ref<LogGroup>()
const person = ref<number>()
const asked = computed(() => (typeof route.query.day === 'string' ? route.query.day : undefined))
const { data: log, failed } = useLive(
  'GET /api/log',
  () => true,
  () => ({ query: { day: asked.value, group: group.value, person: person.value } }),
)
const day = computed({
  get: () => asked.value ?? log.value?.day ?? null,
  set: to => void router.replace({ query: to ? { day: to } : {} }),
})
const by = (days: number) => {
  if (day.value) day.value = DateTime.fromISO(day.value).plus({ days }).toISODate()
}
</script>

<template>
  <div class="max-w-4xl" data-test="log">
    <h1>{{ w('log.of') }}</h1>
    <div class="flex flex-wrap gap-2 items-end my-3 print:hidden">
      <button class="chip" @click="by(-1)">{{ w('log.before') }}</button>
      <DateField v-model="day" class="w-52" :label="w('log.day')" />
      <button class="chip" @click="by(1)">{{ w('log.after') }}</button>
    </div>
    <LogFilter v-model:group="group" v-model:person="person" :asked="{ day: day ?? undefined }" />
    <PageState v-if="!log" :failed="failed" />
    <LogEntries v-else :entries="log.entries" piece />
  </div>
</template>
