<script setup lang="ts">
import { DateTime } from 'luxon'
import { type Spell, worked_min } from '#core/timetable'
import type { ActTarget } from '~/composables/bench'

/** Who had a step in hand, from when to when; put right with a word. */
const props = defineProps<{ step: ActTarget; spells: readonly Spell[]; can: boolean; running: boolean }>()
const clock = useClock()
const { at, dayTime, time, hours, zone } = useFormat()
const FIELD = "yyyy-MM-dd'T'HH:mm"
const open = ref<number | null>(null)
const form = reactive({ from: '', to: '', word: '' })
function correct(s: Spell) {
  open.value = s.id
  Object.assign(form, { from: at(s.from_ms).toFormat(FIELD), to: s.to_ms === null ? '' : at(s.to_ms).toFormat(FIELD) })
  form.word = ''
}
const moment = (typed: string) => DateTime.fromISO(typed, { zone: zone() }).toUTC().toISO()
/** A time that nobody touched keeps its seconds. */
const kept = (typed: string, was_ms: number | null) =>
  was_ms !== null && at(was_ms).toFormat(FIELD) === typed ? new Date(was_ms).toISOString() : moment(typed)
async function save(s: Spell) {
  const { from, to, word } = form
  const done = await actAtBench('correct', props.step, 0, {
    spellId: s.id,
    from: kept(from, s.from_ms),
    to: to ? kept(to, s.to_ms) : null,
    word,
  })
  if (done) open.value = null
}
</script>

<template>
  <div v-if="spells.length" class="mt-2" data-test="times">
    <p>{{ w('plan.worked', { time: hours(worked_min(spells, clock.now)) }) }}</p>
    <ul>
      <li v-for="s in spells" :key="s.id" class="row !py-1">
        <div class="flex flex-wrap items-center gap-x-4">
          <span class="grow"
            >{{ s.by }}, {{ dayTime(s.from_ms) }} – {{ s.to_ms === null ? w('plan.inHand') : time(s.to_ms) }}</span
          >
          <button v-if="can" class="underline min-h-11" @click="open === s.id ? (open = null) : correct(s)">
            {{ w(open === s.id ? 'cancel' : 'plan.correct') }}
          </button>
        </div>
        <form v-if="open === s.id" class="flex flex-wrap gap-3 items-end mb-2" @submit.prevent="save(s)">
          <label>{{ w('plan.from') }}<input v-model="form.from" type="datetime-local" class="field" required /></label>
          <label
            >{{ w('plan.to')
            }}<input v-model="form.to" type="datetime-local" class="field" :required="!running || s.to_ms !== null"
          /></label>
          <TextField v-model="form.word" class="grow" :label="w('plan.correctWhy')" required />
          <button class="act">{{ w('save') }}</button>
        </form>
      </li>
    </ul>
  </div>
</template>
