<script setup lang="ts">
/** What faults on other pieces taught about what this plan takes. */
const props = defineProps<{ pieceId: number; learnt: PlanPage['learnt']; can: boolean }>()
const emit = defineEmits<{ changed: [] }>()
async function mind(faultId: number) {
  if (await send('POST /api/pieces/:id/minded', { id: props.pieceId, body: { faultId } })) emit('changed')
}
</script>

<template>
  <section v-if="learnt.length" class="verdict" data-test="learnt">
    <strong>{{ w('fault.learnt') }}</strong>
    <p v-for="l in learnt" :key="l.faultId" class="mt-1">
      {{ l.next }}
      <span class="caption">{{ w('fault.learntOf', { name: l.name, piece: l.pieceId }) }}</span>
      <button v-if="can" class="underline min-h-11 px-1" @click="mind(l.faultId)">{{ w('fault.minded') }}</button>
    </p>
  </section>
</template>
