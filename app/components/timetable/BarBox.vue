<script setup lang="ts">
/** One task of the schedule: what, who, where, when, why there; and holding it there, or elsewhere. */
const props = defineProps<{ bar: Bar; table: Timetable; moved: Hold | null }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const session = useSession()
const { dayTime, time } = useFormat()
const piece = computed(() => props.table.pieces.find(p => p.pieceId === props.bar.pieceId))
const who = computed(() => props.table.people.find(p => p.id === props.bar.personId)?.name ?? w('timetable.nobody'))
const room = computed(() => props.table.rooms.find(r => r.id === props.bar.roomId)?.name ?? w('timetable.nowhere'))
const why = computed(() => {
  const { by, says } = props.bar.why
  return says === null && ['wait', 'hand', 'room', 'window'].includes(by)
    ? w('timetable.why.hours')
    : w(`timetable.why.${by}`, { other: says ?? '' } as never)
})
const was = computed(() => {
  if (!props.bar.was) return ''
  const { start_ms, personId } = props.bar.was
  const by = props.table.people.find(p => p.id === personId)?.name ?? w('timetable.nobody')
  return w('timetable.was', { who: by, at: dayTime(start_ms) })
})
const elsewhere = ref(props.moved !== null)
const form = ref<Omit<Hold, 'at'> & { at: number | null }>(
  props.moved ?? { at: props.bar.start_ms, who: props.bar.personId, room: null },
)
const options = computed(() => [{ value: null, label: w('timetable.anybody') }, ...namedOptions(props.table.people)])
const rooms = computed(() => [{ value: null, label: w('timetable.anyRoom') }, ...namedOptions(props.table.rooms)])
const error = ref('')
const bodyOf = (at: number, personId: number | null, roomId: number | null) => ({
  ...{ startsAt: new Date(at).toISOString(), personId, roomId },
})
/** What it would do there, worked out before it is held. */
const effects = shallowRef<Effects | null>(null)
let asked = 0
async function look() {
  const mine = ++asked
  effects.value = null
  error.value = ''
  const { at, who: personId, room: roomId } = form.value
  if (!elsewhere.value || at === null) return
  try {
    const found = await sendOnce('POST /api/steps/:id/pin', {
      id: props.bar.stepId,
      body: bodyOf(at, personId, roomId),
    })
    if (mine === asked) effects.value = found
  } catch (e) {
    if (mine === asked) error.value = problem(e).message
  }
}
watchDebounced([form, elsewhere], look, { deep: true, debounce: 400, immediate: props.moved !== null })
async function hold(at: number | null, personId: number | null, roomId: number | null = null) {
  if (at === null) return
  error.value = ''
  try {
    await sendOnce('PUT /api/steps/:id/pin', { id: props.bar.stepId, body: bodyOf(at, personId, roomId) })
    useNotes().show(w('timetable.held2'), 'done', letGo)
    emit('changed')
  } catch (e) {
    error.value = problem(e).message
  }
}
const letGo = async () => {
  await send('DELETE /api/steps/:id/pin', { id: props.bar.stepId })
  emit('changed')
}
</script>

<template>
  <DialogBox :title="bar.titles.join(' + ')" @close="emit('close')">
    <p class="mt-2">
      <strong>{{ bar.pieceId }} {{ piece?.piece }}</strong> · {{ who }} · {{ room
      }}<template v-if="bar.place"> · {{ bar.place }}</template>
    </p>
    <p v-for="[from, to] in bar.parts" :key="from" class="clock">{{ dayTime(from) }} – {{ time(to) }}</p>
    <p v-if="was" class="caption" data-test="was">{{ was }}</p>
    <p v-if="bar.dry_ms > bar.end_ms" class="caption">{{ w('timetable.dryUntil', { at: dayTime(bar.dry_ms) }) }}</p>
    <p v-if="bar.closes_ms !== null" class="caption" data-test="closes">
      {{ w('timetable.closesAt', { at: dayTime(bar.closes_ms) }) }}
    </p>
    <p v-if="bar.dry_ms > bar.end_ms && bar.start_ms > table.usualAirFrom_ms" class="caption">
      {{ w('timetable.usualAir') }}
    </p>
    <template v-if="!elsewhere">
      <h3 class="mt-4">{{ w('timetable.whyHere') }}</h3>
      <p data-test="why">{{ why }}</p>
    </template>
    <form v-else class="grid gap-3 mt-4" @submit.prevent="hold(form.at, form.who, form.room)">
      <MomentField v-model="form.at" :label="w('timetable.holdWhen')" :error="error || undefined" />
      <ChoiceField v-model="form.who" :label="w('timetable.holdWho')" :options="options" />
      <ChoiceField v-model="form.room" :label="w('timetable.holdWhere')" :options="rooms" />
      <EffectList v-if="effects" :effects="effects" />
      <p v-else-if="form.at !== null && !error" class="caption" role="status">{{ w('timetable.thinking') }}</p>
      <button class="act justify-self-start" :disabled="form.at === null || !effects">
        {{ w('timetable.holdThere') }}
      </button>
    </form>
    <div class="flex flex-wrap gap-3 mt-4">
      <template v-if="session.may('edit-plan') && bar.state === 'planned' && !elsewhere">
        <button v-if="bar.pinned" class="act" @click="letGo">{{ w('timetable.letGo') }}</button>
        <button v-else class="act" @click="hold(bar.start_ms, bar.personId)">{{ w('timetable.hold') }}</button>
        <button class="act act-quiet" @click="elsewhere = true">{{ w('timetable.holdAt') }}</button>
      </template>
      <NuxtLink :to="`/pieces/${bar.pieceId}/plan`" class="act act-quiet">{{ w('timetable.open') }}</NuxtLink>
      <button class="act act-quiet" @click="emit('close')">{{ w('close') }}</button>
    </div>
  </DialogBox>
</template>
