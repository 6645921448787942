<script setup lang="ts">
/** What a change would do: whom it makes later or earlier, by how much, and which windows break. */
const props = defineProps<{ effects: Effects }>()
const { day, time, span } = useFormat()
const { at } = useMoment()
const SHOWN = 6
const shift = (e: Effects['pieces'][number]) =>
  e.was_ms === null || e.becomes_ms === null ? 0 : e.becomes_ms - e.was_ms
const HOUR_MS = 3_600_000
/** Shifts of minutes are nobody's business. */
const rows = computed(() =>
  props.effects.pieces.filter(
    e =>
      e.id === props.effects.asked ||
      e.becomes_ms === null ||
      Math.abs(shift(e)) >= HOUR_MS ||
      e.late_h !== e.wasLate_h,
  ),
)
const ready = (ms: number | null, other: number | null) => {
  if (ms === null) return w('timetable.noPlace')
  const same = other !== null && at(ms).toISODate() === at(other).toISODate()
  return same ? `${day(ms)} ${time(ms)}` : day(ms)
}
const heldByWaits = computed(() =>
  props.effects.pieces.some(e => e.id === props.effects.asked && e.late_h > 0 && e.becomes_ms === e.was_ms),
)
const all = ref(false)
const saved = computed(() => props.effects.wasLate_h - props.effects.late_h)
</script>

<template>
  <div data-test="effects">
    <p v-if="effects.slipped" class="verdict verdict-warn">{{ w('timetable.slips') }}</p>
    <p v-for="b in effects.breaks" :key="b.says + b.what" class="verdict verdict-stop">
      {{ w(`timetable.breaks.${b.what}`, { piece: b.pieceId, step: b.says, by: span(b.by_min * 60_000) }) }}
    </p>
    <p v-if="!rows.length">{{ w('timetable.nobodyMoves') }}</p>
    <table v-else class="w-full my-2">
      <thead>
        <tr class="caption text-left">
          <th scope="col">{{ w('timetable.piece') }}</th>
          <th scope="col">{{ w('timetable.today2') }}</th>
          <th scope="col">{{ w('timetable.then') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="e in all ? rows : rows.slice(0, SHOWN)" :key="e.id" class="border-t border-line align-top">
          <td class="py-1 pr-3">{{ e.id }} {{ e.piece }}</td>
          <td class="pr-3">{{ ready(e.was_ms, e.becomes_ms) }}</td>
          <td :class="shift(e) > 0 && e.late_h > 0 ? 'text-madder font-semibold' : ''">
            {{ ready(e.becomes_ms, e.was_ms)
            }}<span v-if="e.late_h > 0" class="caption block">{{
              w('timetable.lateBy', { by: span(e.late_h * 3_600_000), due: e.dueOn ? day(e.dueOn) : '' })
            }}</span
            ><span v-else-if="e.wasLate_h > 0" class="caption block">{{ w('timetable.inTime') }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="!all && rows.length > SHOWN" type="button" class="act act-quiet" @click="all = true">
      {{ w('timetable.more', { n: rows.length - SHOWN }) }}
    </button>
    <p v-if="heldByWaits" class="verdict">{{ w('timetable.heldByWaits') }}</p>
    <p v-if="Math.abs(saved) >= 1" class="font-semibold">
      {{ w(saved > 0 ? 'timetable.lessLate' : 'timetable.moreLate', { by: span(Math.abs(saved) * 3_600_000) }) }}
    </p>
  </div>
</template>
