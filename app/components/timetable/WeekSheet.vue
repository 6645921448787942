<script setup lang="ts">
import type { DayColumn } from '#core/timetable/axis'

/** The days shown, on paper: a sheet for each line with its steps by day, in words. On a screen there is none. */
const props = defineProps<{
  lanes: readonly Lane[]
  columns: readonly DayColumn[]
  table: Timetable
  /** each on a page of its own */
  apart: boolean
}>()
const { time, day } = useFormat()
const { at } = useMoment()
const nameIn = (all: readonly { id: number; name: string }[], id: number | null) => all.find(x => x.id === id)?.name
const sheets = computed(() =>
  props.lanes.flatMap(lane => {
    const days = props.columns.flatMap(column => {
      const bars = lane.bars.filter(b => at(b.start_ms).toISODate() === column.day)
      return bars.length ? [{ day: column.day, bars: bars.toSorted((a, b) => a.start_ms - b.start_ms) }] : []
    })
    return days.length ? [{ name: lane.name, days }] : []
  }),
)
const where = (b: Bar, under: string) =>
  [nameIn(props.table.people, b.personId), nameIn(props.table.rooms, b.roomId), b.ifYes && w('timetable.held')]
    .filter(says => says && says !== under)
    .join(' · ')
const pieceOf = ({ pieceId }: Bar) => `${pieceId} ${props.table.pieces.find(p => p.pieceId === pieceId)?.piece ?? ''}`
</script>

<template>
  <div class="hidden print:block text-xs" data-test="week-sheet">
    <section v-for="(sheet, i) in sheets" :key="sheet.name" :class="i > 0 && (apart ? 'break-before-page' : 'mt-4')">
      <h2 class="text-lg break-after-avoid">{{ sheet.name }}</h2>
      <table v-for="one in sheet.days" :key="one.day" class="w-full mt-2">
        <caption class="text-left font-bold border-b">
          {{
            day(one.day)
          }}
        </caption>
        <tbody>
          <tr v-for="b in one.bars" :key="b.task" class="align-top break-inside-avoid">
            <td class="clock whitespace-nowrap pr-3 w-24">{{ time(b.start_ms) }}–{{ time(b.end_ms) }}</td>
            <td class="pr-3">{{ b.titles.join(' + ') }}</td>
            <td v-if="pieceOf(b) !== sheet.name" class="pr-3 w-48">{{ pieceOf(b) }}</td>
            <td class="w-40">{{ where(b, sheet.name) }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>
