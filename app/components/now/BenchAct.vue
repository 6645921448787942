<script setup lang="ts">
import { MenuButton, MenuItems, MenuItem, Menu } from '@headlessui/vue'
import { MATERIALS } from '#core/materials'
import type { RouteSlug } from '#core/piece'
import type { ActTarget, StepLine } from '~/composables/bench'

/** Start, done, not dry yet, take back: now, or some minutes ago. */
const props = defineProps<{
  step: ActTarget & {
    kind: string
    product?: string | null
    amount_ml?: number | null
    gate?: { look: string; fails: string; fallback: RouteSlug | null } | null
    passTest?: string | null
    on?: readonly { id: number; name: string }[]
    sections?: StepLine['sections']
    measures?: StepLine['measures']
    seen?: StepLine['seen']
  }
  state: 'planned' | 'running' | 'done'
  may?: boolean
  /** dusty work that may start where it is carried outside */
  outside?: boolean
  waits?: boolean
}>()
const session = useSession()
const asking = ref<number | null>(null)
const busy = ref(false)
const AGO = [5, 10, 20, 30]
const potted = computed(() => MATERIALS.some(m => m.slug === props.step.product && m.potLife_min))
async function go(kind: 'start' | 'finish' | 'not-dry' | 'mixed' | 'undo', ago = 0, measured = false) {
  const { product, gate, passTest, seen } = props.step
  if (kind === 'finish' && (measured || product || gate || passTest || seen?.length)) {
    asking.value = ago
    return
  }
  busy.value = true
  await actAtBench(kind, props.step, ago)
  busy.value = false
}
/** What the next touch does to a section, while the step runs in sections. */
const section = computed(() => {
  const s = props.state === 'running' ? (props.step.sections ?? null) : null
  if (s?.next && (s.takes || s.wipes)) return { what: 'off' as const, no: s.next.no, of: s.count }
  if (s && !s.takes && s.laid < s.count) return { what: 'on' as const, no: s.laid + 1, of: s.count }
  return null
})
async function startOutside() {
  busy.value = true
  await actAtBench('start', props.step, 0, { outside: true })
  busy.value = false
}
async function touch(what: 'on' | 'off' | 'back') {
  busy.value = true
  await actAtBench('section', props.step, 0, { what })
  busy.value = false
}
const main = computed(() => (props.state === 'running' ? ('finish' as const) : ('start' as const)))
const can = computed(() => session.may('owner', 'lead', 'finisher'))
</script>

<template>
  <span v-if="can" class="inline-flex items-stretch">
    <button
      v-if="section"
      class="act mr-2 whitespace-nowrap"
      :disabled="busy"
      data-test="section"
      @click="touch(section.what)"
    >
      {{ w(`bench.section.${section.what}`, { no: section.no, of: section.of }) }}
    </button>
    <button
      v-if="state === 'running' || (state === 'planned' && may)"
      class="act min-w-24 !rounded-r-none"
      :class="section ? 'act-quiet' : ''"
      :disabled="busy"
      @click="go(main)"
    >
      {{ w(`bench.${main}`) }}
    </button>
    <button
      v-else-if="outside"
      class="act min-w-24 !rounded-r-none whitespace-nowrap"
      :disabled="busy"
      data-test="start-outside"
      @click="startOutside"
    >
      {{ w('bench.startOutside') }}
    </button>
    <Menu as="span" class="relative inline-flex">
      <MenuButton
        class="act act-quiet !px-3"
        :class="state === 'running' || may || outside ? '!rounded-l-none' : ''"
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
        <MenuItem v-if="may && outside" v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="startOutside"
          >
            {{ w('bench.startOutside') }}
          </button></MenuItem
        >
        <MenuItem v-if="state === 'running' && step.measures?.numbers.length" v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="go('finish', 0, true)"
          >
            {{ w('bench.measure') }}
          </button></MenuItem
        >
        <MenuItem v-if="state !== 'done' && potted" v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="go('mixed')"
          >
            {{ w('bench.mixed') }}
          </button></MenuItem
        >
        <MenuItem
          v-if="state === 'running' && step.sections && step.sections.laid + step.sections.off > 1"
          v-slot="{ active }"
          ><button
            class="block w-full text-left px-4 min-h-12"
            :class="active ? 'bg-verdigris-wash' : ''"
            @click="touch('back')"
          >
            {{ w('bench.section.back') }}
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
