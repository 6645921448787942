<script setup lang="ts">
defineProps<{ label: string; error?: string; type?: string; required?: boolean; autocomplete?: string }>()
const model = defineModel<string>()
const id = useId()
</script>

<template>
  <div>
    <label :for="id" class="block">{{ label }}</label>
    <input
      :id="id"
      v-model="model"
      class="field"
      :type="type ?? 'text'"
      :aria-invalid="Boolean(error)"
      :aria-describedby="error ? `${id}-error` : undefined"
      :required="required"
      :autocomplete="autocomplete"
    />
    <p v-if="error" :id="`${id}-error`" class="text-madder">{{ error }}</p>
  </div>
</template>
