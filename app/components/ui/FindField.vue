<script setup lang="ts" generic="T extends string | number | null | undefined">
import {
  Combobox,
  ComboboxButton,
  ComboboxInput,
  ComboboxLabel,
  ComboboxOption,
  ComboboxOptions,
} from '@headlessui/vue'

/** One of many, found by typing a part of its name: woods, products, pieces, readings. */
const props = defineProps<{
  label: string
  options: readonly Option<T>[]
  labelHidden?: boolean
  none?: string
  error?: string
  disabled?: boolean
}>()
const model = defineModel<T>({ required: true })
const typed = ref('')
const MOST = 60
const labelOf = (value: unknown) => props.options.find(o => o.value === value)?.label ?? ''
const found = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  return props.options.filter(o => words.every(word => o.label.toLowerCase().includes(word)))
})
/** A touch on the text opens the list as one on its mark does. */
const openBeside = (event: Event) =>
  (event.currentTarget as HTMLElement).parentElement!.querySelector<HTMLElement>('button')!.click()
const { opens, place } = useRoomBelow(() => listHigh_px(props.options.length))
/** Opened anew, the whole list is there. */
function begin(event: Event) {
  typed.value = ''
  place(event)
}
watch(model, () => {
  typed.value = ''
})
</script>

<template>
  <Combobox v-slot="{ open }" v-model="model" as="div" class="min-w-0" :disabled="disabled">
    <ComboboxLabel :class="labelHidden ? 'sr-only' : 'block'">{{ label }}</ComboboxLabel>
    <div class="relative">
      <ComboboxInput
        class="field truncate !pr-11"
        autocomplete="off"
        :display-value="labelOf"
        :placeholder="none ?? w('find.type')"
        :aria-invalid="Boolean(error)"
        @pointerdown="begin"
        @focus="($event.target as HTMLInputElement).select()"
        @click="open || openBeside($event)"
        @keydown="place"
        @change="typed = $event.target.value"
      />
      <ComboboxButton
        class="absolute inset-y-0 right-0 w-11 flex items-center justify-center"
        :aria-label="label"
        @pointerdown="begin"
        ><FieldMark :open="open"
      /></ComboboxButton>
      <ComboboxOptions class="choices" :class="opens">
        <ComboboxOption
          v-for="o in found.slice(0, MOST)"
          :key="String(o.value)"
          v-slot="{ active, selected }"
          :value="o.value"
          :data-value="String(o.value)"
          :disabled="o.disabled"
        >
          <ChoiceLine :active="active" :selected="selected" :disabled="o.disabled">{{ o.label }}</ChoiceLine>
        </ComboboxOption>
        <li v-if="found.length > MOST" class="caption px-4 py-2">{{ w('find.more', { n: found.length - MOST }) }}</li>
        <li v-if="!found.length" class="px-4 py-3">{{ w('find.nothing') }}</li>
      </ComboboxOptions>
    </div>
    <p v-if="error" class="text-madder">{{ error }}</p>
  </Combobox>
</template>
