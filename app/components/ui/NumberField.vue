<script setup lang="ts">
/** A number; an empty field is null. */
defineProps<{ label: string; min?: number; max?: number; step?: number | 'any'; error?: string; required?: boolean }>()
const model = defineModel<number | null>()
const id = useId()
function take(event: Event) {
  const { value, valueAsNumber } = event.target as HTMLInputElement
  model.value = value === '' || Number.isNaN(valueAsNumber) ? null : valueAsNumber
}
</script>

<template>
  <div class="min-w-0">
    <label :for="id" class="block">{{ label }}</label>
    <input
      :id="id"
      type="number"
      class="field"
      inputmode="decimal"
      :value="model"
      :min="min"
      :max="max"
      :step="step"
      :required="required"
      :aria-invalid="Boolean(error)"
      :aria-describedby="error ? `${id}-error` : undefined"
      @input="take"
    />
    <p v-if="error" :id="`${id}-error`" class="text-madder">{{ error }}</p>
  </div>
</template>
