<script setup lang="ts">
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/vue'

/** A long page in parts, one of them in sight; each part is the slot of its name. */
const props = defineProps<{ label: string; tabs: readonly { name: string; label: string }[] }>()
/** the name of the part in sight */
const model = defineModel<string>()
const at = computed(() =>
  Math.max(
    0,
    props.tabs.findIndex(t => t.name === model.value),
  ),
)
const show = (i: number) => {
  model.value = props.tabs[i]!.name
}
</script>

<template>
  <TabGroup :selected-index="at" @change="show">
    <TabList class="flex overflow-x-auto border-b border-line" :aria-label="label">
      <Tab v-for="t in tabs" :key="t.name" v-slot="{ selected }" as="template">
        <button
          class="min-h-12 px-4 whitespace-nowrap border-b-4"
          :class="selected ? 'border-verdigris font-bold' : 'border-transparent'"
        >
          {{ t.label }}
        </button>
      </Tab>
    </TabList>
    <TabPanels class="mt-5">
      <TabPanel v-for="t in tabs" :key="t.name"><slot :name="t.name" /></TabPanel>
    </TabPanels>
  </TabGroup>
</template>
