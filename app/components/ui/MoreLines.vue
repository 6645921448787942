<script setup lang="ts">
/** The rest of a list, by a touch. `n`: how many lines are left out. */
defineProps<{ n: number }>()
const whole = defineModel<boolean>({ required: true })
</script>

<template>
  <button v-if="n > 0" class="underline min-h-11 text-left" :aria-expanded="whole" @click="whole = !whole">
    {{ whole ? w('fewer') : w('moreLines', { n }) }}
  </button>
</template>
