<script setup lang="ts">
const { page, load: reload } = inject(PIECE)!
const session = useSession()
const id = computed(() => page.value!.piece.id)
const {
  data: answers,
  load,
  failed,
} = useLive('GET /api/answers', (topic, piece) => topic === 'piece' && (piece === null || piece === id.value))
const mine = computed(() => (answers.value ?? []).filter(a => a.pieceId === id.value))
const SAMPLES = ['none', 'bare', 'under-finish'] as const
async function sample(colourSample: 'none' | 'bare') {
  await send('PATCH /api/pieces/:id', {
    id: id.value,
    body: { rowVersion: page.value!.piece.row_version, colourSample },
  })
  await reload()
}
const can = computed(() => session.may('quote'))
const again = () => load().then(reload)
</script>

<template>
  <div class="grid lg:grid-cols-2 gap-10">
    <ClientAsks v-if="can" :key="id" :piece="page!.piece" @changed="again" />
    <section>
      <div v-if="can && page!.coloured" class="mb-4">
        <ChoiceField
          :model-value="page!.piece.colour_sample"
          :label="w('client.sample')"
          :options="SAMPLES.map(o => ({ value: o, label: w(`client.samples.${o}`), disabled: o === 'under-finish' }))"
          @update:model-value="$event !== 'under-finish' && $event && sample($event)"
        />
        <NuxtLink class="underline inline-flex items-center min-h-11" :to="`/pieces/${id}/colour`">{{
          w('client.byBand')
        }}</NuxtLink>
      </div>
      <h2>{{ w('client.asked') }}</h2>
      <PageState v-if="!answers" :failed="failed" />
      <p v-else-if="!mine.length" class="row">{{ w('client.never') }}</p>
      <AnswerCard v-for="a in mine" :key="a.id" :answer="a" @changed="load().then(reload)" />
    </section>
  </div>
</template>
