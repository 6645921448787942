<script setup lang="ts">
import { type Spell, worked_min } from '#core/timetable/spells'
import type { ActTarget } from '~/composables/bench'

/** Who had a step in hand, from when to when; put right with a word. */
const props = defineProps<{ step: ActTarget; spells: readonly Spell[]; can: boolean; running: boolean }>()
const clock = useClock()
const { dayTime, time, hours } = useFormat()
const open = ref<number | null>(null)
const form = reactive({ from: null as number | null, to: null as number | null, word: '' })
const errors = ref<Record<string, string>>({})
const busy = ref(false)
function correct(s: Spell) {
  open.value = s.id
  errors.value = {}
  Object.assign(form, { from: s.from_ms, to: s.to_ms, word: '' })
}
const iso = (ms: number) => new Date(ms).toISOString()
async function save(s: Spell) {
  if (form.from === null) return
  busy.value = true
  const { stepId, rowVersion } = props.step
  try {
    const done = await sendOnce('POST /api/bench', {
      body: {
        kind: 'correct',
        ...{ stepId, rowVersion, spellId: s.id, word: form.word, happenedAt: iso(clock.now) },
        ...{ from: iso(form.from), to: form.to === null ? null : iso(form.to) },
      },
    })
    useNotes().show(done.says)
    open.value = null
  } catch (error) {
    const { message, fields } = problem(error)
    errors.value = fields ?? {}
    useNotes().show(message, 'stop')
    await sendAway(error)
  }
  busy.value = false
}
</script>

<template>
  <div v-if="spells.length" class="mt-2" data-test="times">
    <p>{{ w('plan.worked', { time: hours(worked_min(spells, clock.now)) }) }}</p>
    <ul>
      <li v-for="s in spells" :key="s.id" class="row !py-1">
        <div class="flex flex-wrap items-center gap-x-4">
          <span class="grow"
            >{{ s.by }}{{ s.at ? `, ${s.at}` : '' }}, {{ dayTime(s.from_ms) }} –
            {{ s.to_ms === null ? w('plan.inHand') : time(s.to_ms) }}</span
          >
          <button v-if="can" class="underline min-h-11" @click="open === s.id ? (open = null) : correct(s)">
            {{ w(open === s.id ? 'cancel' : 'plan.correct') }}
          </button>
        </div>
        <form v-if="open === s.id" class="flex flex-wrap gap-3 items-end mb-2" @submit.prevent="save(s)">
          <MomentField v-model="form.from" class="w-80" :label="w('plan.from')" :error="errors.from" />
          <MomentField v-model="form.to" class="w-80" :label="w('plan.to')" :error="errors.to" />
          <TextField v-model="form.word" class="grow" :label="w('plan.correctWhy')" :error="errors.word" required />
          <button class="act" :disabled="busy || form.from === null">{{ w('save') }}</button>
        </form>
      </li>
    </ul>
  </div>
</template>
