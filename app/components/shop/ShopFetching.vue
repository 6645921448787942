<script setup lang="ts">
/** On which days pieces are fetched and delivered, and holidays from a calendar. */
const props = defineProps<{ days: readonly number[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const DAYS = [1, 2, 3, 4, 5, 6, 7] as const
async function turn(d: number, on: boolean) {
  const weekdays = on ? [...props.days, d] : props.days.filter(x => x !== d)
  if (await send('PUT /api/shop/fetch-days', { body: { weekdays } })) emit('changed')
}
async function read(event: Event) {
  const text = await chosenText(event)
  if (text === undefined) return
  const done = await send('POST /api/shop/holidays', { body: { text } })
  if (!done) return
  useNotes().show(w('rooms.holidaysTaken', { n: done.taken, known: done.known }))
  emit('changed')
}
</script>

<template>
  <section data-test="fetching">
    <h2>{{ w('rooms.fetching') }}</h2>
    <p class="caption">{{ w('rooms.fetchingWhy') }}</p>
    <div v-if="session.may('shop')" class="grid sm:grid-cols-2">
      <SwitchField
        v-for="d in DAYS"
        :key="d"
        :model-value="days.includes(d)"
        :label="w(`weekday.${d}`)"
        @update:model-value="turn(d, Boolean($event))"
      />
    </div>
    <p v-else class="row">{{ days.map(d => w(`weekday.${d as 1}`)).join(', ') || w('rooms.anyDay') }}</p>
    <label v-if="session.may('shop')" class="block mt-6"
      >{{ w('rooms.holidays') }} <input type="file" accept=".ics,text/calendar" class="field" @change="read" /><span
        class="caption"
        >{{ w('rooms.holidaysWhy') }}</span
      ></label
    >
  </section>
</template>
