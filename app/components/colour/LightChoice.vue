<script setup lang="ts">
import { LIGHTS, type Light } from '#core/colour'

/** The light that swatches are shown under. */
const light = useLight()
const choose = (l: Light) => { light.value = l }
</script>

<template>
  <div class="flex flex-wrap w-fit" role="group" :aria-label="$t('colour.light')">
    <button v-for="l in LIGHTS" :key="l" type="button" class="px-4 min-h-11 text-left leading-tight border border-line -ml-px -mt-px" :class="light === l ? 'bg-ink text-sheet font-semibold' : 'bg-sheet'" :aria-pressed="light === l" @click="choose(l)">{{ $t(`colour.lights.${l}`) }}</button>
  </div>
</template>
