<script setup lang="ts">
import { KEYS } from '~/composables/keys'

const entries = <K extends string>(of: Readonly<Record<K, string>>) => Object.entries(of) as [K, string][]

/** The keys that work here. */
const emit = defineEmits<{ close: [] }>()
const route = useRoute()
const lines = computed(() => [
  ...(route.path === '/' ? entries(KEYS.now) : []),
  ...(route.path.endsWith('/plan') ? entries(KEYS.plan) : []),
  ...(route.path === '/' || route.path.endsWith('/plan') ? entries(KEYS.rows) : []),
  ...entries(KEYS.everywhere),
])
</script>

<template>
  <DialogBox :title="w('keys.title')" @close="emit('close')">
    <dl class="mt-3">
      <div v-for="[what, key] in lines" :key="what" class="row !py-2 flex gap-4">
        <dt class="w-28 font-semibold">{{ key }}</dt>
        <dd>{{ w(`keys.${what}`) }}</dd>
      </div>
    </dl>
    <button class="act act-quiet mt-4" @click="emit('close')">{{ w('close') }}</button>
  </DialogBox>
</template>
