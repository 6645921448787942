<script setup lang="ts">
/** A step that may start, why it stands where it does in the list, and what to mind. */
const props = defineProps<{ line: StepLine; waits: boolean }>()
const emit = defineEmits<{ piece: [id: number] }>()
const bench = inject(BENCH)!
const { time, day, hours, span } = useFormat()
const due = computed(() => bench.value?.pieces[props.line.pieceId]?.due_on ?? null)
const session = useSession()
const clock = useClock()
/** When the timetable has it done, and by whom. */
const planned = computed(() => {
  const p = props.line.planned
  if (!p) return ''
  const mine = p.personId !== null && p.personId === session.person?.id
  const other = day(p.start_ms) === day(clock.now) ? '' : day(p.start_ms)
  const at = p.start_ms <= clock.now ? w('now.plannedNow') : `${other} ${time(p.start_ms)}`.trim()
  return w(mine ? 'now.plannedMine' : 'now.planned', { who: p.person ?? w('timetable.nobody'), at })
})
/** More than this hangs on it: then it says so. */
const MUCH_MIN = 24 * 60
const why = computed(() => {
  const { latest_ms, closes_ms, behind_min } = props.line
  if (closes_ms !== null) return { says: w('now.closesAt', { at: time(closes_ms) }), soon: true }
  if (latest_ms !== null) return { says: w('now.before', { at: time(latest_ms) }), soon: true }
  const hangs = behind_min > MUCH_MIN ? w('now.behind', { span: span(behind_min * 60_000) }) : ''
  const promised = due.value ? w('now.due', { day: day(due.value) }) : ''
  return { says: [promised, hangs].filter(Boolean).join(', '), soon: false }
})
</script>

<template>
  <div class="row !py-1.5" data-test="may">
    <div class="flex flex-wrap items-center justify-end gap-x-3 gap-y-1">
      <StepTitle
        class="grow basis-44"
        :step="line"
        :minutes="hours(line.attended_min)"
        @piece="emit('piece', $event)"
      />
      <BenchAct :step="line" state="planned" :may="line.inside" :outside="line.outside" :waits="waits" />
    </div>
    <p
      v-if="planned || why.says || line.keeps.length || line.cautions.length"
      class="caption pl-14 flex flex-wrap gap-x-3"
    >
      <span v-if="planned" class="text-ink" data-test="planned">{{ planned }}</span>
      <span v-if="why.says" :class="why.soon ? 'text-ochre' : ''">{{ why.says }}</span>
      <span v-if="line.keeps.length" class="text-ochre">{{ w('plan.keeps', { marks: line.keeps.join(', ') }) }}</span>
      <span v-if="line.cautions.length" class="text-madder" data-test="cautions"
        >{{ w('bench.mind') }} {{ line.cautions.map(c => w(`caution.${c}`)).join(' · ') }}</span
      >
    </p>
    <p v-for="says in line.warnings" :key="says" class="caption text-ochre pl-14">{{ says }}</p>
  </div>
</template>
