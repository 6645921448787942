<script setup lang="ts">
/** What faults on other pieces taught about what this plan takes. */
const props = defineProps<{ pieceId: number; can: boolean }>()
const { data: all, load } = useLive(
  'GET /api/pieces/:id/faults',
  (topic, piece) => topic === 'piece' && piece === props.pieceId,
  () => ({ id: props.pieceId }),
)
async function mind(faultId: number) {
  if (await send('POST /api/pieces/:id/minded', { id: props.pieceId, body: { faultId } })) await load()
}
</script>

<template>
  <section v-if="all?.learnt.length" class="verdict" data-test="learnt">
    <strong>{{ w('fault.learnt') }}</strong>
    <p v-for="l in all.learnt" :key="l.faultId" class="mt-1">
      {{ l.next }}
      <span class="caption">{{ w('fault.learntOf', { name: l.name, piece: l.pieceId }) }}</span>
      <button v-if="can" class="underline min-h-11 px-1" @click="mind(l.faultId)">{{ w('fault.minded') }}</button>
    </p>
  </section>
</template>
