<script setup lang="ts">
import { LIGHTS, type Light } from '#core/colour'

/** The light that swatches are shown under; the client's room and the shop are named where they are known. */
const props = defineProps<{ lights?: { room: Light | null; shop: Light } }>()
const light = useLight()
const places = (l: Light) => (['room', 'shop'] as const).filter(p => props.lights?.[p] === l)
const choose = (l: Light) => {
  light.value = l
}
</script>

<template>
  <div class="flex flex-wrap w-fit" role="group" :aria-label="w('colour.light')">
    <button
      v-for="l in LIGHTS"
      :key="l"
      type="button"
      class="px-4 min-h-11 text-left leading-tight border border-line -ml-px -mt-px"
      :class="light === l ? 'bg-ink text-sheet font-semibold' : 'bg-sheet'"
      :aria-pressed="light === l"
      @click="choose(l)"
    >
      {{ w(`colour.lights.${l}`)
      }}<span v-for="p in places(l)" :key="p" class="block text-[13px] font-normal">{{
        w(`colour.lightOf.${p}`)
      }}</span>
    </button>
  </div>
</template>
