<script setup lang="ts">
/** The line at the foot of the page: what was done, with a way back where there is one, or why it was not. */
const notes = useNotes()
</script>

<template>
  <div class="fixed inset-x-0 bottom-0 z-50 pointer-events-none" aria-live="assertive" role="status">
    <div
      v-if="notes.note"
      class="pointer-events-auto flex items-center gap-4 px-6 py-3 text-lg border-t-4 bg-sheet"
      :class="notes.note.kind === 'stop' ? 'border-madder' : 'border-moss'"
      data-test="note"
    >
      <span class="grow">{{ notes.note.says }}</span>
      <NuxtLink v-if="notes.note.on" class="underline min-h-11 inline-flex items-center" :to="notes.note.on.to">{{
        notes.note.on.says
      }}</NuxtLink>
      <button v-if="notes.note.back" class="act" @click="notes.takeBack">{{ w('takeBack') }}</button>
      <button class="act act-quiet" @click="notes.clear">{{ w('close') }}</button>
    </div>
  </div>
</template>
