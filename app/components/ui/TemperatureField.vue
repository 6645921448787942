<script setup lang="ts">
import { toC, toF } from '#core/units'

/** A temperature: kept in °C, typed and shown in the shop's unit. `min`, `max`: °C. */
defineProps<{ label: string; min?: number; max?: number; error?: string }>()
const model = defineModel<number | null>()
const session = useSession()
const inF = computed(() => session.shop?.temperature_unit === 'F')
const tenth = (x: number) => Math.round(x * 10) / 10
const shown = computed({
  get: () => (model.value == null || !inF.value ? (model.value ?? null) : tenth(toF(model.value))),
  set: typed => {
    model.value = typed === null || !inF.value ? typed : Math.round(toC(typed) * 100) / 100
  },
})
const bound = (C: number | undefined) => (C === undefined || !inF.value ? C : tenth(toF(C)))
</script>

<template>
  <NumberField
    v-model="shown"
    :label="`${label}, ${inF ? '°F' : '°C'}`"
    :min="bound(min)"
    :max="bound(max)"
    step="any"
    :error="error"
  />
</template>
