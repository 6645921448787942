<script setup lang="ts">
/** The one link that opens all that a client may see of a piece. */
const props = defineProps<{ pieceId: number }>()
const { data: may, load } = useLive(
  'GET /api/pieces/:id/asking',
  (topic, piece) => topic === 'piece' && (piece === null || piece === props.pieceId),
  () => ({ id: props.pieceId }),
)
const made = ref('')
async function make() {
  const done = await send('POST /api/pieces/:id/link', { id: props.pieceId, body: {} })
  if (done) made.value = done.address
  await load()
}
async function revoke() {
  if (await send('DELETE /api/pieces/:id/link', { id: props.pieceId })) made.value = ''
  await load()
}
</script>

<template>
  <section class="mt-6" data-test="piece-link">
    <h2>{{ w('client.pieceLink') }}</h2>
    <p class="caption">
      {{ w('client.pieceLinkWhy') }} <strong v-if="may?.links">{{ w('client.links', { n: may.links }) }}</strong>
    </p>
    <p v-if="made" class="row">
      {{ w('client.linkMade') }} <a class="underline break-all" :href="made" data-test="made-link">{{ made }}</a>
    </p>
    <div class="flex flex-wrap gap-2 mt-2">
      <button class="act act-quiet" @click="make">{{ w('client.makeLink') }}</button><button
        v-if="may?.links"
        class="act act-stop"
        @click="revoke"
      >
        {{ w('client.revoke') }}
      </button>
    </div>
  </section>
</template>
