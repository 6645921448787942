<script setup lang="ts">
/** Papers of a piece: quotations by version, the bench ticket, and what was done. */
const props = defineProps<{ pieceId: number; quotations: MayAsk['quotations']; begun: boolean; colours: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const { sum, day } = useFormat()
/** What there is to print by now. */
const kinds = computed(() => [
  ...(['ticket', 'condition', 'record', 'delivery', 'care'] as const),
  ...(props.colours ? (['colours'] as const) : []),
  ...(props.begun ? (['statement'] as const) : []),
])
const words = ref('')
const by = ref<'stage' | 'part'>('stage')
async function quote() {
  if (
    await send('POST /api/pieces/:id/quotations', { id: props.pieceId, body: { words: words.value, by: by.value } })
  ) {
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
      <span class="clock">{{ sum(q.total_minor, q.worst_minor) }}</span>
      <span class="caption">{{ w('papers.holds', { day: day(q.valid_until) }) }}</span>
    </p>
    <form class="grid gap-2 mt-2" @submit.prevent="quote">
      <label>{{ w('papers.words') }} <textarea v-model="words" class="field" rows="2" maxlength="1000" /></label>
      <RadioField
        v-model="by"
        :label="w('papers.by')"
        :options="(['stage', 'part'] as const).map(value => ({ value, label: w(`papers.${value}`) }))"
      />
      <button class="act act-quiet justify-self-start">{{ w('papers.make') }}</button>
    </form>
    <p class="flex flex-wrap gap-x-6 mt-2">
      <a
        v-for="kind in kinds"
        :key="kind"
        class="underline min-h-11 inline-flex items-center"
        :href="`/api/pieces/${pieceId}/${kind}`"
        target="_blank"
        >{{ w(`papers.${kind}`) }}</a
      >
      <a class="underline min-h-11 inline-flex items-center" :href="`/api/pieces/${pieceId}/archive`">{{
        w('papers.archive')
      }}</a>
    </p>
    <LabelLinks :says="w('papers.labels')" :address="`/api/pieces/${pieceId}/labels`" />
    <LabelLinks
      v-if="begun"
      :says="w('papers.hidden')"
      :address="`/api/pieces/${pieceId}/labels`"
      :query="{ of: 'hidden' }"
    />
  </section>
</template>
