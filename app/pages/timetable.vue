<script setup lang="ts">
const { data, failed } = useLive('GET /api/timetable', topic => topic !== 'air')
const { at } = useMoment()
const { time, day, hours } = useFormat()
const days = computed(() =>
  data.value ? Array.from({ length: 7 }, (_, i) => at(data.value!.now_ms).startOf('day').plus({ days: i })) : [],
)
type Row = NonNullable<typeof data.value>['pieces'][number]
const on = (row: Row, from: number, to: number) => row.steps.filter(s => s.start_ms >= from && s.start_ms < to)
const closed = (weekday: number) => !data.value?.hours.week[weekday as 1]?.length
const minutes = (from: number, to: number) =>
  (data.value?.pieces ?? [])
    .filter(p => !p.held)
    .flatMap(p => on(p, from, to))
    .reduce((sum, s) => sum + s.attended_min, 0)
</script>

<template>
  <div>
    <h1>{{ w('timetable.title') }}</h1>
    <p class="caption">{{ w('timetable.how') }}</p>
    <PageState v-if="!data" :failed="failed" />
    <CannotRead v-else :pieces="data.unreadable" />
    <div class="overflow-x-auto mt-3" tabindex="0">
      <table v-if="data" class="w-full min-w-[64rem] text-left border-collapse table-fixed">
        <thead>
          <tr>
            <th class="w-52" />
            <th
              v-for="d in days"
              :key="d.toMillis()"
              class="px-2 py-1 align-bottom"
              :class="closed(d.weekday) ? 'text-soft' : ''"
            >
              {{ d.toFormat('ccc d LLL')
              }}<span class="caption block font-normal">{{
                closed(d.weekday)
                  ? w('timetable.closed')
                  : w('timetable.hands', { h: hours(minutes(d.toMillis(), d.plus({ days: 1 }).toMillis())) })
              }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in data.pieces" :key="p.pieceId" class="border-t border-line align-top">
            <th class="py-2 pr-3 font-normal">
              <NuxtLink :to="`/pieces/${p.pieceId}/plan`" class="no-underline"
                ><strong>{{ p.pieceId }} {{ p.piece }}</strong></NuxtLink
              >
              <span class="caption block">{{
                p.held
                  ? w('timetable.held')
                  : p.readyLikely_ms && p.readySafe_ms
                    ? w('timetable.ready', { likely: day(p.readyLikely_ms), safe: day(p.readySafe_ms) })
                    : ''
              }}</span>
              <span v-if="p.late" class="caption block text-madder font-semibold">{{
                w('timetable.late', { day: day(p.dueOn!) })
              }}</span>
            </th>
            <td
              v-for="d in days"
              :key="d.toMillis()"
              class="px-2 py-2"
              :class="[closed(d.weekday) ? 'bg-line/40' : '', p.held ? 'text-soft italic' : '']"
            >
              <p
                v-for="s in on(p, d.toMillis(), d.plus({ days: 1 }).toMillis())"
                :key="s.key"
                class="text-sm leading-snug mb-1"
              >
                <span class="clock font-semibold">{{ time(s.start_ms) }}</span> {{ s.title }}
              </p>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
