<script setup lang="ts">
import { LOG_GROUPS, type LogGroup } from '#shared/schemas'

/** Which entries of the logbook are shown, and taking them out. `asked`: what the address of the export carries. */
const props = defineProps<{ asked: Record<string, string | number | undefined> }>()
const group = defineModel<LogGroup | undefined>('group')
const person = defineModel<number | undefined>('person')
const bench = inject(BENCH)!
const GROUPS = Object.keys(LOG_GROUPS) as LogGroup[]
const address = computed(() => {
  const carried = Object.entries({ ...props.asked, group: group.value, person: person.value })
  return `/api/log/export?${new URLSearchParams(carried.flatMap(([k, v]) => (v === undefined ? [] : [[k, `${v}`]])))}`
})
const print = () => window.print()
</script>

<template>
  <div class="flex flex-wrap gap-2 items-end mb-2 print:hidden">
    <button class="chip" :aria-pressed="group === undefined" @click="group = undefined">{{ w('log.all') }}</button>
    <button v-for="g in GROUPS" :key="g" class="chip" :aria-pressed="group === g" @click="group = g">
      {{ w(`log.group.${g}`) }}
    </button>
    <ChoiceField
      :model-value="person ?? 0"
      class="w-44"
      :label="w('log.by')"
      :options="[
        { value: 0, label: w('log.anybody') },
        ...(bench?.people ?? []).map(p => ({ value: p.id, label: p.name })),
      ]"
      @update:model-value="person = $event || undefined"
    />
    <a class="chip inline-flex items-center no-underline" :href="address" download>{{ w('log.csv') }}</a>
    <button class="chip" @click="print">{{ w('log.print') }}</button>
  </div>
</template>
