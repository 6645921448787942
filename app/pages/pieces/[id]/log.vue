<script setup lang="ts">
import type { LogGroup } from '#shared/schemas'

const { page } = inject(PIECE)!
const id = computed(() => page.value!.piece.id)
const group = ref<LogGroup>()
const person = ref<number>()
const { data: log, failed } = useLive(
  'GET /api/pieces/:id/log',
  (topic, piece) => piece === id.value,
  () => ({ id: id.value, query: { group: group.value, person: person.value } }),
)
</script>

<template>
  <div class="max-w-4xl" data-test="log">
    <LogFilter v-model:group="group" v-model:person="person" :asked="{ piece: id }" />
    <p class="caption">{{ w('log.keeps') }}</p>
    <PageState v-if="!log" :failed="failed" />
    <LogEntries v-else :entries="log" />
  </div>
</template>
