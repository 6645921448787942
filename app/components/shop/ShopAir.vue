<script setup lang="ts">
/** The air by hand, or from a logger's file. */
const air = ref({ temperature_C: 20, rh_pct: 45 })
const add = () => send('POST /api/air', { body: air.value })
async function read(event: Event) {
  const input = event.target as HTMLInputElement
  const text = await input.files?.[0]?.text()
  if (text === undefined) return
  const done = await send('POST /api/air-log', { body: { text } })
  if (done) useNotes().show(w('airHours.taken', { n: done.taken, known: done.known }))
  input.value = ''
}
</script>

<template>
  <form class="flex flex-wrap gap-3 items-end" @submit.prevent="add">
    <h2 class="w-full">{{ w('shop.air') }}</h2>
    <label class="w-28">°C <input v-model.number="air.temperature_C" type="number" step="0.1" class="field" /></label>
    <label class="w-28">% <input v-model.number="air.rh_pct" type="number" class="field" /></label>
    <button class="act act-quiet">{{ w('shop.addAir') }}</button>
    <label class="w-full"
      >{{ w('airHours.file') }} <input type="file" accept=".csv,.txt,text/csv" class="field" @change="read" /><span
        class="caption"
        >{{ w('airHours.fileWhy') }}</span
      ></label
    >
  </form>
</template>
