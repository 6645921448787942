<script setup lang="ts">
/** A number; an empty field is null. What lies outside its bounds is said beside it. */
const props = defineProps<{
  label: string
  min?: number
  max?: number
  step?: number | 'any'
  error?: string
  required?: boolean
}>()
const model = defineModel<number | null>()
const id = useId()
const typed = ref(model.value ?? null)
watch(model, value => (typed.value = value ?? null))
const said = computed(() => props.error || outside(typed.value, props.min, props.max))
function take(event: Event) {
  const { value, valueAsNumber } = event.target as HTMLInputElement
  typed.value = value === '' || Number.isNaN(valueAsNumber) ? null : valueAsNumber
  model.value = typed.value
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
      :value="typed"
      :min="min"
      :max="max"
      :step="step"
      :required="required"
      :aria-invalid="Boolean(said)"
      :aria-describedby="said ? `${id}-error` : undefined"
      @input="take"
    />
    <p v-if="said" :id="`${id}-error`" class="text-madder">{{ said }}</p>
  </div>
</template>
