<script setup lang="ts" generic="T extends string | number | null | undefined">
import { Listbox, ListboxButton, ListboxLabel, ListboxOption, ListboxOptions } from '@headlessui/vue'

/** One of a few: what is chosen stands on the button, the rest opens by a touch or the arrow keys. */
const props = defineProps<{
  label: string
  options: readonly Option<T>[]
  /** for eyes that see it from what stands around it */
  labelHidden?: boolean
  /** what stands there while nothing is chosen */
  none?: string
  error?: string
  disabled?: boolean
}>()
const model = defineModel<T>({ required: true })
const chosen = computed(() => props.options.find(o => o.value === model.value))
const { opens, place } = useRoomBelow(() => listHigh_px(props.options.length))
</script>

<template>
  <Listbox v-slot="{ open }" v-model="model" as="div" class="min-w-0" :disabled="disabled">
    <ListboxLabel :class="labelHidden ? 'sr-only' : 'block'">{{ label }}</ListboxLabel>
    <div class="relative">
      <ListboxButton
        class="field flex items-center gap-2 text-left"
        :aria-invalid="Boolean(error)"
        :data-value="model"
        @pointerdown="place"
        @keydown="place"
      >
        <span class="grow truncate">{{ chosen?.label ?? none ?? '–' }}</span><FieldMark :open="open" />
      </ListboxButton>
      <ListboxOptions class="choices" :class="opens">
        <ListboxOption
          v-for="o in options"
          :key="String(o.value)"
          v-slot="{ active, selected }"
          :value="o.value"
          :data-value="String(o.value)"
          :disabled="o.disabled"
        >
          <ChoiceLine :active="active" :selected="selected" :disabled="o.disabled">{{ o.label }}</ChoiceLine>
        </ListboxOption>
      </ListboxOptions>
    </div>
    <p v-if="error" class="text-madder">{{ error }}</p>
  </Listbox>
</template>
