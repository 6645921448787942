<script setup lang="ts">
/** The air by hand, or from a logger's file. */
import { cellsOf } from '#core/air'

const props = defineProps<{ rooms: readonly { id: number; name: string }[] }>()
const air = ref<{ temperature_C: number | null; rh_pct: number | null; roomId: number | null }>({
  ...{ temperature_C: 20, rh_pct: 45, roomId: null },
})
const places = computed(() => [
  { value: null, label: w('shop.airShop') },
  ...props.rooms.map(r => ({ value: r.id, label: r.name })),
])
async function add() {
  const { temperature_C, rh_pct, roomId } = air.value
  if (temperature_C === null || rh_pct === null) return
  if (await send('POST /api/air', { body: { temperature_C, rh_pct, roomId } })) useNotes().show(w('shop.airKept'))
}
async function read(event: Event) {
  const text = await chosenText(event)
  if (text === undefined) return
  file.value = text
  if (await take(undefined)) return
  // where the file does not say what stands where, somebody shows it
  cells.value = cellsOf(text.split(/\r?\n/).findLast(l => l.trim()) ?? '').slice(0, 60)
}
const file = ref('')
const cells = ref<string[]>([])
const columns = reactive({ time: 0, day: null as number | null, temperature: 1, humidity: 2, fahrenheit: false })
async function take(given: typeof columns | undefined) {
  const done = await send('POST /api/air-log', { body: { text: file.value, columns: given && { ...given } } })
  if (!done) return false
  useNotes().show(w('airHours.taken', { n: done.taken, known: done.known }))
  cells.value = []
  return true
}
const shown = computed(() => cells.value.map((c, value) => ({ value, label: `${value + 1}: ${c.slice(0, 30)}` })))
</script>

<template>
  <form class="flex flex-wrap gap-3 items-end" @submit.prevent="add">
    <h2 class="w-full">{{ w('shop.air') }}</h2>
    <ChoiceField v-if="rooms.length" v-model="air.roomId" class="w-48" :label="w('shop.airWhere')" :options="places" />
    <TemperatureField v-model="air.temperature_C" class="w-32" :label="w('shop.airT')" :min="-20" :max="60" />
    <NumberField v-model="air.rh_pct" class="w-32" :label="w('shop.airRh')" :min="1" :max="100" step="any" />
    <button class="act act-quiet">{{ w('shop.addAir') }}</button>
    <label class="w-full"
      >{{ w('airHours.file') }} <input type="file" accept=".csv,.txt,text/csv" class="field" @change="read" /><span
        class="caption"
        >{{ w('airHours.fileWhy') }}</span
      ></label
    >
    <div v-if="cells.length" class="w-full grid sm:grid-cols-2 gap-3" data-test="columns">
      <p class="sm:col-span-2">{{ w('airHours.columns') }}</p>
      <ChoiceField v-model="columns.time" :label="w('airHours.time')" :options="shown" />
      <ChoiceField
        v-model="columns.day"
        :label="w('airHours.day')"
        :options="[{ value: null, label: w('airHours.dayWithTime') }, ...shown]"
      />
      <ChoiceField v-model="columns.temperature" :label="w('shop.airT')" :options="shown" />
      <ChoiceField v-model="columns.humidity" :label="w('shop.airRh')" :options="shown" />
      <SwitchField v-model="columns.fahrenheit" :label="w('airHours.fahrenheit')" />
      <button type="button" class="act justify-self-start" @click="take(columns)">{{ w('airHours.read') }}</button>
    </div>
  </form>
</template>
