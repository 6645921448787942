<script setup lang="ts">
/** Parts and faces that were not typed at take-in, or were forgotten. */
const props = defineProps<{ id: number; first: boolean }>()
const emit = defineEmits<{ added: [] }>()
const open = ref(props.first)
const { draft, errors, busy, submit, reset } = useForm('POST /api/pieces/:id/parts', () => ({ parts: firstParts() }))
async function add() {
  const done = await submit({ id: props.id })
  if (!done) return
  useNotes().show(w('intake.added'))
  open.value = false
  reset()
  emit('added')
}
</script>

<template>
  <section class="mt-4" data-test="add-faces">
    <p v-if="first" class="verdict">{{ w('intake.noFaces') }}</p>
    <button v-if="!open" class="act act-quiet" @click="open = true">{{ w('intake.addFaces') }}</button>
    <form v-else novalidate @submit.prevent="add">
      <PartsForm v-model="draft.parts" :errors="errors" />
      <div class="flex flex-wrap gap-3 justify-end mt-4">
        <button v-if="!first" type="button" class="act act-quiet" @click="open = false">
          {{ w('cancel') }}</button><button class="act" :disabled="busy">{{ w('intake.addThese') }}</button>
      </div>
    </form>
  </section>
</template>
