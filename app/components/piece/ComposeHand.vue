<script setup lang="ts">
import type { ComposeAnswer } from '~/workers/compose.worker'

/** What was changed by hand in the plan: each is made again unless it is left, some go with their step. */
defineProps<{ hand: ComposeAnswer['hand'] | null; asksAgain: boolean }>()
/** keys of those that are left */
const leave = defineModel<string[]>({ required: true })
const toggle = (key: string, again: boolean) =>
  (leave.value = again ? leave.value.filter(k => k !== key) : [...leave.value, key])
</script>

<template>
  <section v-if="asksAgain || hand?.kept.length || hand?.lost.length" data-test="hand">
    <h3>{{ w('surface.whenTaken') }}</h3>
    <p v-if="asksAgain" class="verdict">{{ w('surface.asksAgain') }}</p>
    <template v-if="hand?.kept.length">
      <p class="caption">{{ w('surface.again') }}</p>
      <SwitchField
        v-for="c in hand.kept"
        :key="c.key"
        :model-value="!leave.includes(c.key)"
        :label="w(`surface.hand.${c.kind}`, { title: c.title })"
        @update:model-value="toggle(c.key, Boolean($event))"
      />
    </template>
    <template v-if="hand?.lost.length">
      <p class="caption">{{ w('surface.goes') }}</p>
      <p v-for="c in hand.lost" :key="c.key" class="row">{{ c.title }}</p>
    </template>
  </section>
</template>
