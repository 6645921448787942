<script setup lang="ts">
import type { QuestionShown } from '#core/approval'

/** What is done, in everyday words, for whoever wants to know. */
const props = defineProps<{ shown: QuestionShown }>()
const lists = computed(() => props.shown.items.flatMap(i => i.options.filter(o => o.does.length > 0)))
</script>

<template>
  <section v-if="lists.length" class="row mt-6">
    <h2>{{ w('letter.steps') }}</h2>
    <div v-for="o in lists" :key="o.says" class="mt-2">
      <h3 v-if="lists.length > 1">{{ o.says }}</h3>
      <ol class="list-decimal pl-6">
        <li v-for="(s, i) in o.does" :key="i">{{ s }}</li>
      </ol>
    </div>
  </section>
</template>
