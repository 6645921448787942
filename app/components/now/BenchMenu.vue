<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import type { PlainKey } from '~/utils/words'

/** All that a step takes beside its one touch; comes when it is first asked for, and opens itself. */
defineProps<{
  label: string
  joined: boolean
  timed: readonly ('start' | 'finish' | 'pause' | 'go-on')[]
  items: readonly { word: PlainKey; act: () => unknown }[]
}>()
const emit = defineEmits<{ ready: []; ago: [kind: 'start' | 'finish' | 'pause' | 'go-on', minutes: number] }>()
const AGO = [5, 10, 20, 30]
const button = useTemplateRef<{ el: HTMLElement }>('button')
onMounted(async () => {
  emit('ready')
  await nextTick()
  button.value?.el.click()
})
</script>

<template>
  <Menu as="span" class="relative inline-flex">
    <MenuButton ref="button" class="act act-quiet !px-3" :class="joined ? '!rounded-l-none' : ''" :aria-label="label"
      >⋯</MenuButton
    >
    <MenuItems
      class="absolute right-0 top-full z-30 mt-1 w-84 max-w-[90vw] bg-sheet border border-soft focus:outline-none"
    >
      <div v-for="kind in timed" :key="kind" class="flex items-center border-b border-line pl-4">
        <span class="grow">{{ w(`bench.ago.${kind}`) }}</span>
        <MenuItem v-for="n in AGO" :key="n" v-slot="{ active }"
          ><button
            class="w-11 min-h-12 clock"
            :class="active ? 'bg-verdigris-wash' : ''"
            :aria-label="w(`bench.agoSays.${kind}`, { n })"
            @click="emit('ago', kind, n)"
          >
            {{ n }}
          </button></MenuItem
        >
      </div>
      <MenuItem v-for="item in items" :key="item.word" v-slot="{ active }"
        ><button
          class="block w-full text-left px-4 min-h-12"
          :class="active ? 'bg-verdigris-wash' : ''"
          @click="item.act"
        >
          {{ w(item.word) }}
        </button></MenuItem
      >
    </MenuItems>
  </Menu>
</template>
