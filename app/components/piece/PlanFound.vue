<script setup lang="ts">
/** What was found after the plan was made, and what it would change. */
defineProps<{ found: NonNullable<PlanPage['found']>; can: boolean }>()
const emit = defineEmits<{ take: [take: boolean] }>()
</script>

<template>
  <section class="verdict" data-test="found">
    <strong>{{ w('plan.found') }}</strong>
    <ul class="my-1">
      <li v-for="title in found.added" :key="title">+ {{ title }}</li>
      <li v-for="title in found.gone" :key="title" class="line-through">{{ title }}</li>
      <li v-for="title in found.changed" :key="title">{{ title }}</li>
      <li v-for="title in found.late" :key="title" class="text-madder">{{ w('plan.foundLate', { title }) }}</li>
    </ul>
    <div v-if="can" class="flex flex-wrap gap-2">
      <button
        v-if="found.added.length || found.gone.length || found.changed.length"
        class="act"
        data-test="take-found"
        @click="emit('take', true)"
      >
        {{ w('plan.foundTake') }}</button><button class="act act-quiet" @click="emit('take', false)">
        {{ w('plan.foundLeave') }}
      </button>
    </div>
  </section>
</template>
