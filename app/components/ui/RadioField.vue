<script setup lang="ts" generic="T extends string | number">
import { RadioGroup, RadioGroupLabel, RadioGroupOption } from '@headlessui/vue'

/** One of a few that all stay in sight: a touch, or the arrow keys. */
defineProps<{ label: string; options: readonly Option<T>[]; labelHidden?: boolean; error?: string; tight?: boolean }>()
const model = defineModel<T>()
</script>

<template>
  <RadioGroup v-model="model" as="div">
    <RadioGroupLabel :class="labelHidden ? 'sr-only' : 'block'">{{ label }}</RadioGroupLabel>
    <div class="flex flex-wrap" :class="tight ? 'gap-1' : 'gap-2'">
      <RadioGroupOption
        v-for="o in options"
        :key="String(o.value)"
        v-slot="{ checked }"
        as="template"
        :value="o.value"
        :disabled="o.disabled"
      >
        <button type="button" class="act" :class="[checked ? '' : 'act-quiet', tight ? '!px-0 min-w-12' : '']">
          {{ o.label }}
        </button>
      </RadioGroupOption>
      <slot />
    </div>
    <p v-if="error" class="text-madder mt-1">{{ error }}</p>
  </RadioGroup>
</template>
