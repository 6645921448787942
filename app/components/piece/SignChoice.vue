<script setup lang="ts">
/** A sign, chosen by what is to be seen, and the step at which it shows. */
import { GROUPS, SIGNS } from '#core/diagnose'

const props = defineProps<{
  steps: readonly { id: number; title: string; gate: { look: string; fails: string } | null }[]
  at: number | null
  part?: string
}>()
const emit = defineEmits<{ see: [{ sign: string; stepId: number | null }] }>()
const step = ref<number | null>(props.at ?? props.steps[0]?.id ?? null)
const part = ref(props.part ?? '')
const gate = computed(() => props.steps.find(s => s.id === step.value)?.gate ?? null)
const shown = computed(() => {
  const wanted = part.value.trim().toLowerCase()
  return GROUPS.map(group => ({
    group,
    signs: SIGNS.filter(s => s.group === group && s.name.toLowerCase().includes(wanted)),
  })).filter(g => g.signs.length > 0)
})
const options = computed(() => [
  ...props.steps.map(s => ({ value: s.id as number | null, label: s.title })),
  { value: null, label: w('fault.atNone') },
])
</script>

<template>
  <div class="grid gap-4" data-test="signs">
    <div class="grid sm:grid-cols-2 gap-3">
      <ChoiceField v-model="step" :label="w('fault.at')" :options="options" />
      <label>{{ w('fault.find') }} <input v-model="part" class="field" type="search" maxlength="40" /></label>
    </div>
    <p v-if="gate" class="verdict">{{ w('fault.judged', gate) }}</p>
    <section v-for="g in shown" :key="g.group">
      <h3>{{ w(`fault.group.${g.group}`) }}</h3>
      <div class="flex flex-wrap gap-2 mt-1">
        <button
          v-for="s in g.signs"
          :key="s.slug"
          class="chip min-h-12"
          :data-sign="s.slug"
          @click="emit('see', { sign: s.slug, stepId: step })"
        >
          {{ s.name }}
        </button>
      </div>
    </section>
  </div>
</template>
