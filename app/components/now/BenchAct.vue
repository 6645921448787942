<script setup lang="ts">
import { MenuButton, MenuItems, MenuItem, Menu } from '@headlessui/vue'
import { MATERIALS } from '#core/materials'
import type { ActTarget } from '~/composables/bench'

/** Start, done, not dry yet, take back: now, or some minutes ago. */
const props = defineProps<{
  step: ActTarget & {
    kind: string
    product?: string | null
    amount_ml?: number | null
    gate?: { look: string; fails: string } | null
    passTest?: string | null
    on?: readonly { id: number; name: string }[]
  }
  state: 'planned' | 'running' | 'done'
  may?: boolean
  waits?: boolean
}>()
const session = useSession()
const asking = ref<number | null>(null)
const busy = ref(false)
const AGO = [5, 10, 20, 30]
const potted = computed(() => MATERIALS.some(m => m.slug === props.step.product && m.potLife_min))
async function go(kind: 'start' | 'finish' | 'not-dry' | 'mixed' | 'undo', ago = 0) {
  if (kind === 'finish' && (props.step.product || props.step.gate || props.step.passTest)) {
    asking.value = ago
    return
  }
  busy.value = true
  await actAtBench(kind, props.step, ago)
  busy.value = false
}
const main = computed(() => (props.state === 'running' ? ('finish' as const) : ('start' as const)))
const can = computed(() => session.may('owner', 'lead', 'finisher'))
</script>

<template>
  <span v-if="can" class="inline-flex items-stretch">
    <button
      v-if="state === 'running' || (state === 'planned' && may)"
      class="act min-w-24 !rounded-r-none"
      :disabled="busy"
      @click="go(main)"
    >
      {{ w(`bench.${main}`) }}
    </button>
    <Menu as="span" class="relative inline-flex">
      <MenuButton
        class="act act-quiet !px-3"
        :class="state === 'running' || may ? '!rounded-l-none' : ''"
        :aria-label="w('bench.more', { title: step.title })"
        >⋯</MenuButton
      >
      <MenuItems class="absolute right-0 top-full z-30 mt-1 w-64 bg-sheet border border-soft focus:outline-none">
        <template v-if="state === 'running' || may">
          <MenuItem v-for="n in AGO" :key="n" v-slot="{ active }"
            ><button
              class="block w-full text-left px-4 min-h-12"
              :class="active ? 'bg-verdigris-wash' : ''"
              @click="go(main, n)"
            >
              {{ w(`bench.${main}Ago`, { n }) }}
            </button></MenuItem
          >
        </template>
        <MenuItem v-if="state !== 'done' && potted" v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="go('mixed')"
          >
            {{ w('bench.mixed') }}
          </button></MenuItem
        >
        <MenuItem v-if="state === 'planned' && waits" v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="go('not-dry')"
          >
            {{ w('bench.notDry') }}
          </button></MenuItem
        >
        <MenuItem v-if="state !== 'planned'" v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="go('undo')"
          >
            {{ w('bench.undo') }}
          </button></MenuItem
        >
      </MenuItems>
    </Menu>
    <FinishDialog v-if="asking !== null" :step="step" :ago="asking" @close="asking = null" />
  </span>
</template>
