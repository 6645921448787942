<script setup lang="ts">
/** Work of several pieces that shares a set-up, and what putting it together saves. */
const props = defineProps<{ table: Timetable }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { dayTime, time } = useFormat()
type Batch = Timetable['batches'][number]
const whoOf = (b: Batch) => props.table.people.find(p => p.id === b.handId)?.name ?? w('timetable.nobody')
const saves = (b: Batch) =>
  b.saved_ml > 0
    ? w('timetable.savesBoth', { min: b.saved_min, ml: b.saved_ml })
    : w('timetable.saves', { min: b.saved_min })
async function hold({ steps, handId }: Batch) {
  for (const { stepId, start_ms } of steps) {
    const body = { startsAt: new Date(start_ms).toISOString(), personId: handId, roomId: null }
    if (!(await send('PUT /api/steps/:id/pin', { id: stepId, body }))) return
  }
  useNotes().show(w('timetable.heldTogether'), 'done', async () => {
    for (const { stepId } of steps) await send('DELETE /api/steps/:id/pin', { id: stepId })
    emit('changed')
  })
  emit('changed')
}
</script>

<template>
  <section data-test="together">
    <h2>{{ w('timetable.together') }}</h2>
    <p class="caption">{{ w('timetable.togetherWhy') }}</p>
    <div v-for="b in table.batches" :key="b.steps[0]!.stepId" class="row flex flex-wrap items-center gap-x-6 gap-y-2">
      <div class="grow">
        <strong>{{ w(`timetable.shared.${b.kind}`, { n: b.steps.length }) }}</strong> · {{ saves(b) }} · {{ whoOf(b) }},
        {{ dayTime(b.steps[0]!.start_ms) }}
        <p v-for="s in b.steps" :key="s.stepId" class="caption">
          {{ time(s.start_ms) }} · {{ s.pieceId }}: {{ s.says }}
        </p>
      </div>
      <button v-if="session.may('edit-plan')" class="act act-quiet" @click="hold(b)">
        {{ w('timetable.holdTogether') }}
      </button>
    </div>
  </section>
</template>
