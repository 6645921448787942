<script setup lang="ts">
import { breaksUnder, type UnderLight } from '#core/colour'

/** Says under which lights a match breaks, and under which it holds; nothing where it holds under all. */
const props = defineProps<{ under: readonly UnderLight[] }>()
const breaks = computed(() => breaksUnder(props.under))
const named = (list: readonly UnderLight[]) => list.map(u => w(`colour.lights.${u.light}`)).join(' · ')
</script>

<template>
  <p v-if="breaks.length" class="verdict verdict-stop" data-test="breaks">
    {{ w('colour.breaks', { breaks: named(breaks), holds: named(under.filter(u => !breaks.includes(u))) }) }}
  </p>
</template>
