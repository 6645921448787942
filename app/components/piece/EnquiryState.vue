<script setup lang="ts">
/** What becomes of a piece that is asked about: it comes in, or it is not to be done. */
const props = defineProps<{ piece: { id: number; state: string; row_version: number } }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
async function become(becomes: 'active' | 'declined' | 'enquiry') {
  const body = { rowVersion: props.piece.row_version, becomes }
  if (await send('PUT /api/pieces/:id/state', { id: props.piece.id, body })) emit('changed')
}
</script>

<template>
  <div v-if="session.may('take-in')" class="flex flex-wrap gap-2">
    <button class="act" @click="become('active')">{{ w('enquiry.cameIn') }}</button><button
      v-if="piece.state === 'enquiry'"
      class="act act-stop"
      @click="become('declined')"
    >
      {{ w('enquiry.decline') }}</button
    ><button v-else-if="piece.state === 'declined'" class="act act-quiet" @click="become('enquiry')">
      {{ w('enquiry.again') }}
    </button>
  </div>
</template>
