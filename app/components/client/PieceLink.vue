<script setup lang="ts">
/** The one link that opens all that a client may see of a piece. */
const props = defineProps<{ pieceId: number; links: number }>()
const emit = defineEmits<{ changed: [] }>()
const made = ref('')
async function make() {
  const done = await send('POST /api/pieces/:id/link', { id: props.pieceId, body: {} })
  if (done) made.value = done.address
  emit('changed')
}
async function revoke() {
  if (await send('DELETE /api/pieces/:id/link', { id: props.pieceId })) made.value = ''
  emit('changed')
}
</script>

<template>
  <section class="mt-6" data-test="piece-link">
    <h2>{{ w('client.pieceLink') }}</h2>
    <p class="caption">
      {{ w('client.pieceLinkWhy') }} <strong v-if="links">{{ w('client.links', { n: links }) }}</strong>
    </p>
    <p v-if="made" class="row">
      {{ w('client.linkMade') }} <a class="underline break-all" :href="made" data-test="made-link">{{ made }}</a>
    </p>
    <div class="flex flex-wrap gap-2 mt-2">
      <button class="act act-quiet" @click="make">{{ w('client.makeLink') }}</button><button
        v-if="links"
        class="act act-stop"
        @click="revoke"
      >
        {{ w('client.revoke') }}
      </button>
    </div>
  </section>
</template>
