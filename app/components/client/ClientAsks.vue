<script setup lang="ts">
/** What goes to the client of a piece: questions, the link to its page, papers. Read once for all three. */
const props = defineProps<{ piece: PiecePage['piece'] }>()
const emit = defineEmits<{ changed: [] }>()
const {
  data: may,
  failed,
  load,
} = useLive(
  'GET /api/pieces/:id/asking',
  (topic, piece) => topic === 'piece' && (piece === null || piece === props.piece.id),
  () => ({ id: props.piece.id }),
)
const asks = computed(() => props.piece.state === 'active' || props.piece.state === 'enquiry')
async function changed() {
  await load()
  emit('changed')
}
</script>

<template>
  <PageState v-if="!may" :failed="failed" />
  <div v-else>
    <template v-if="asks">
      <AskForm :piece-id="piece.id" :may="may" @asked="changed" />
      <PieceLink :piece-id="piece.id" :links="may.links" @changed="changed" />
    </template>
    <HandOver
      v-if="piece.state === 'active' && may.agreed"
      class="mt-6 block"
      :piece="piece"
      begun
      @changed="changed"
    />
    <PieceDeposit v-if="piece.state !== 'declined'" :piece="piece" :may="may" @changed="changed" />
    <PiecePapers
      :piece-id="piece.id"
      :quotations="may.quotations"
      :colours="may.colours"
      :begun="piece.state !== 'enquiry'"
      @changed="changed"
    />
  </div>
</template>
