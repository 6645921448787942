<script setup lang="ts">
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'

/** What is only sometimes wanted: its title stays, the rest opens by a touch. */
defineProps<{ title?: string; open?: boolean }>()
</script>

<template>
  <Disclosure v-slot="{ open: isOpen }" as="div" :default-open="open">
    <DisclosureButton class="flex items-center gap-2 min-h-11 py-2 text-left w-full">
      <FieldMark :open="isOpen" /><span class="grow"
        ><slot name="title"
          ><span class="underline">{{ title }}</span></slot
        ></span
      >
    </DisclosureButton>
    <DisclosurePanel><slot /></DisclosurePanel>
  </Disclosure>
</template>
