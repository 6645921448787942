<script setup lang="ts">
import { Switch, SwitchGroup, SwitchLabel } from '@headlessui/vue'

/** On or off. */
defineProps<{ label: string; labelHidden?: boolean; disabled?: boolean }>()
const model = defineModel<boolean>()
</script>

<template>
  <SwitchGroup as="div" class="flex items-center gap-3 min-h-12">
    <Switch
      v-model="model"
      class="relative shrink-0 w-14 h-11 disabled:opacity-50"
      :disabled="disabled"
      data-test="switch"
    >
      <span
        class="absolute inset-x-0 inset-y-2 border-[1.5px] rounded-[3px]"
        :class="model ? 'bg-verdigris border-verdigris' : 'bg-sheet border-soft'"
      /><span
        class="absolute top-3 size-5 rounded-[2px]"
        :class="model ? 'right-1 bg-sheet' : 'left-1 bg-soft'"
        aria-hidden="true"
      />
    </Switch>
    <SwitchLabel :class="labelHidden ? 'sr-only' : 'cursor-pointer'">{{ label }}</SwitchLabel>
  </SwitchGroup>
</template>
