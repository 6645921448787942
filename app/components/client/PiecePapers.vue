<script setup lang="ts">
/** Papers of a piece: quotations by version, the bench ticket, and what was done. */
const props = defineProps<{ pieceId: number; quotations: MayAsk['quotations']; begun: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const { money, day } = useFormat()
const words = ref('')
async function quote() {
  if (await send('POST /api/pieces/:id/quotations', { id: props.pieceId, body: { words: words.value } })) {
    words.value = ''
    emit('changed')
  }
}
</script>

<template>
  <section class="mt-6" data-test="papers">
    <h2>{{ w('papers.title') }}</h2>
    <p v-for="q in quotations" :key="q.id" class="row flex flex-wrap gap-x-4 items-center">
      <a class="underline min-h-11 inline-flex items-center" :href="`/api/quotations/${q.id}`" target="_blank">{{
        w('papers.quotation', { no: `${pieceId}-${q.version}` })
      }}</a>
      <span class="clock">{{ money(q.total_minor) }}, {{ w('worst') }} {{ money(q.worst_minor) }}</span>
      <span class="caption">{{ w('papers.holds', { day: day(q.valid_until) }) }}</span>
    </p>
    <form class="grid gap-2 mt-2" @submit.prevent="quote">
      <label>{{ w('papers.words') }} <textarea v-model="words" class="field" rows="2" maxlength="1000" /></label>
      <button class="act act-quiet justify-self-start">{{ w('papers.make') }}</button>
    </form>
    <p class="flex flex-wrap gap-x-6 mt-2">
      <a class="underline min-h-11 inline-flex items-center" :href="`/api/pieces/${pieceId}/ticket`" target="_blank">{{
        w('papers.ticket')
      }}</a>
      <a class="underline min-h-11 inline-flex items-center" :href="`/api/pieces/${pieceId}/record`" target="_blank">{{
        w('papers.record')
      }}</a>
      <a
        v-if="begun"
        class="underline min-h-11 inline-flex items-center"
        :href="`/api/pieces/${pieceId}/statement`"
        target="_blank"
        >{{ w('papers.statement') }}</a
      >
    </p>
  </section>
</template>
