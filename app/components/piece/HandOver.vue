<script setup lang="ts">
/** A piece goes home, done or part done: what is open is shown, who takes it signs; for a day it can be taken back. */
import { DateTime } from 'luxon'

const props = defineProps<{ piece: PiecePage['piece']; begun: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const asking = ref(false)
const month = (iso: string) => DateTime.fromISO(iso).setLocale('en-GB').toFormat('LLLL yyyy')
const shown = shallowRef<AnswerOf<'GET /api/pieces/:id/hand-over'> | null>(null)
const {
  draft: form,
  errors,
  busy,
  submit,
} = useForm('POST /api/pieces/:id/hand-over', () => ({
  rowVersion: 1,
  to: '',
  part: false,
  signature: '',
  remind: false,
}))
const id = computed(() => props.piece.id)
async function ask() {
  shown.value = await call('GET /api/pieces/:id/hand-over', { id: id.value })
  Object.assign(form.value, { to: '', signature: '', remind: false, part: props.piece.state === 'active' })
  asking.value = true
}
async function back(rowVersion: number) {
  if (await send('DELETE /api/pieces/:id/hand-over', { id: id.value, query: { rowVersion } })) emit('changed')
}
async function handOver() {
  const { row_version: rowVersion } = props.piece
  if (!(await submit({ id: id.value }, { rowVersion }))) return
  asking.value = false
  useNotes().show(w('piece.handed', { to: form.value.to }), 'done', () => back(rowVersion + 1))
  emit('changed')
}
</script>

<template>
  <span v-if="session.may('hand-over')">
    <button v-if="piece.state === 'ready'" class="act" @click="ask">{{ w('piece.handOver') }}</button>
    <button v-else-if="piece.state === 'active' && begun" class="underline min-h-11" @click="ask">
      {{ w('handOver.part') }}
    </button>
    <button v-else-if="piece.mayTakeBack" class="act act-quiet" @click="back(piece.row_version)">
      {{ w('piece.handBack') }}
    </button>
    <DialogBox
      v-if="asking && shown"
      :title="w(form.part ? 'handOver.part' : 'piece.handOver')"
      @close="asking = false"
    >
      <form class="grid gap-4 mt-3" data-test="hand-over" @submit.prevent="handOver">
        <div v-if="form.part" class="verdict" data-test="left">
          <p>{{ w('handOver.left') }}</p>
          <ul class="list-disc pl-5">
            <li v-for="title in shown.left" :key="title">{{ title }}</li>
          </ul>
        </div>
        <p v-for="says in shown.holds" :key="says" class="verdict verdict-stop">{{ says }}</p>
        <p v-for="says in shown.open" :key="says" class="verdict">{{ says }}</p>
        <p v-if="!shown.holds.length && !shown.open.length">{{ w('piece.nothingOpen') }}</p>
        <TextField v-model="form.to" :label="w('piece.takenBy')" :error="errors.to" />
        <button type="button" class="chip justify-self-start" @click="form.to = piece.client_name">
          {{ piece.client_name }}
        </button>
        <SignaturePad v-model="form.signature as string" />
        <SwitchField
          v-if="shown.renewOn && !form.part"
          v-model="form.remind as boolean"
          :label="w('handOver.remind', { month: month(shown.renewOn) })"
        />
        <p>
          <a
            class="underline min-h-11 inline-flex items-center"
            :href="`/api/pieces/${id}/care${form.part ? '?part=yes' : ''}`"
            target="_blank"
            >{{ w('papers.care') }}</a
          >
        </p>
        <div class="flex gap-3">
          <button class="act" :disabled="busy || shown.holds.length > 0">{{ w('piece.handOver') }}</button>
          <button type="button" class="act act-quiet" @click="asking = false">{{ w('cancel') }}</button>
        </div>
      </form>
    </DialogBox>
  </span>
</template>
