<script setup lang="ts">
/** The step panel: how each state is foretold to look, and what was measured below it. A state opens its bands. */
export interface PanelCell {
  key: string
  title: string
  now: boolean
  predicted: readonly number[] | null
  measured: readonly number[] | null
  /** why nothing is foretold */
  why: 'no-recipe' | 'no-wood' | 'not-modelled'
  approved: boolean
}
defineProps<{ states: readonly PanelCell[] }>()
/** the key of the state that is open; '' for none */
const open = defineModel<string>({ required: true })
const light = useLight()
</script>

<template>
  <div class="bg-[#777777] p-4 overflow-x-auto" data-test="panel">
    <div class="flex min-w-max">
      <button
        v-for="s in states"
        :key="s.key"
        class="w-28 shrink-0 text-left"
        :class="s.now ? 'outline-4 outline outline-white z-10' : ''"
        :aria-pressed="open === s.key"
        :aria-label="s.title"
        data-test="state"
        @click="open = open === s.key ? '' : s.key"
      >
        <span class="block h-20 relative" :style="s.predicted ? { background: swatch(s.predicted, light) } : {}"
          ><span
            v-if="!s.predicted"
            class="absolute inset-0 grid place-items-center text-white bg-[#4a4a4a] text-sm px-1 text-center"
            >{{ w(`panel.why.${s.why}`) }}</span
          ></span
        >
        <span class="block h-20" :style="{ background: s.measured ? swatch(s.measured, light) : '#777777' }" />
        <span class="block bg-[#4a4a4a] text-white text-sm px-2 py-1 h-20 overflow-hidden leading-tight"
          >{{ s.title }}<strong v-if="s.approved" class="block">✓ {{ w('panel.approved') }}</strong></span
        >
      </button>
    </div>
    <p class="text-white text-sm bg-[#4a4a4a] mt-2 px-2 py-1">{{ w('panel.rows') }}</p>
  </div>
</template>
