<script setup lang="ts">
/** Waste that waits, handed in against a receipt. */
import { quantitySaid } from '#core/store'

const props = defineProps<{
  waiting: AnswerOf<'GET /api/breath'>['waiting']
  receipts: AnswerOf<'GET /api/breath'>['receipts']
}>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { day } = useFormat()
const fresh = () => ({ takenTo: props.receipts[0]?.taken_to ?? '', receipt: '', litres: null, word: '' })
const { draft, errors, submit } = useForm('POST /api/breath/waste', fresh)
const giving = ref(false)
function begin() {
  draft.value = fresh()
  giving.value = true
}
async function handIn() {
  const done = await submit({})
  if (!done) return
  giving.value = false
  useNotes().show(w('breath.handIn'), 'done', async () => {
    if (await send('DELETE /api/breath/waste/:id', { id: done.id })) emit('changed')
  })
  emit('changed')
}
</script>

<template>
  <section data-test="waste">
    <h2>{{ w('breath.waste') }}</h2>
    <p v-if="!waiting.length" class="row">{{ w('breath.noWaste') }}</p>
    <p v-for="x in waiting" :key="x.name" class="row flex gap-4">
      <span class="grow">{{ x.name }}</span><span class="clock">{{ quantitySaid(x.amount, x.unit) }}</span>
    </p>
    <form v-if="giving" class="grid sm:grid-cols-2 gap-3 mt-3" @submit.prevent="handIn">
      <TextField v-model="draft.takenTo" :label="w('breath.takenTo')" :error="errors.takenTo" />
      <TextField v-model="draft.receipt as string" :label="w('breath.receipt')" :error="errors.receipt" />
      <NumberField v-model="draft.litres" :label="w('breath.litres')" :min="0" :step="0.1" :error="errors.litres" />
      <TextField v-model="draft.word as string" :label="w('breath.word')" :error="errors.word" />
      <p class="flex gap-3">
        <button class="act">{{ w('breath.handIn') }}</button>
        <button type="button" class="act act-quiet" @click="giving = false">{{ w('cancel') }}</button>
      </p>
    </form>
    <button v-else-if="session.may('store')" class="act act-quiet mt-2" @click="begin">{{ w('breath.handIn') }}</button>
    <FoldOut v-if="receipts.length" :title="w('breath.receipts')">
      <p v-for="r in receipts" :key="r.id" class="row">
        {{ w('breath.receiptOf', { day: day(r.at), litres: Number(r.litres).toFixed(1), to: r.taken_to }) }}
        <span class="caption block">{{
          [r.receipt && w('breath.receiptNo', { no: r.receipt }), r.content, r.by].filter(Boolean).join(' · ')
        }}</span>
      </p>
    </FoldOut>
    <WhyNote :label="w('plan.whence')">{{ w('breath.wasteWhy') }}</WhyNote>
  </section>
</template>
