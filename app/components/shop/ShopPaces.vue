<script setup lang="ts">
/** How long work really takes here, by its kind; what was learnt can be put away. */
const session = useSession()
const { data, load } = useLive('GET /api/paces', topic => topic === 'piece' || topic === 'shop')
/** A tenth more or less is nothing to tell. */
const NEAR = 0.1
const saidOf = (factor: number) => {
  if (Math.abs(factor - 1) < NEAR) return w('paces.asPlanned')
  const percent = Math.round(Math.abs(factor - 1) * 100)
  return w(factor > 1 ? 'paces.longer' : 'paces.shorter', { percent })
}
async function putBack() {
  const done = await send('DELETE /api/paces')
  if (!done) return
  useNotes().show(w('paces.begun'), 'done', async () => {
    if (await send('PUT /api/paces', { body: { from: done.was } })) await load()
  })
  await load()
}
</script>

<template>
  <section data-test="paces">
    <h2>{{ w('paces.title') }}</h2>
    <p class="caption">{{ w('paces.why') }}</p>
    <p v-if="data && !data.kinds.length" class="row">{{ w('paces.none') }}</p>
    <div v-for="k in data?.kinds ?? []" :key="`${k.kind} ${k.shape}`" class="row grid grid-cols-[1fr_auto] gap-3">
      <span
        >{{ k.called }}<template v-if="k.shape">, {{ w(`shape.${k.shape}`) }}</template
        ><span class="caption block">{{ w('paces.seen', { n: k.seen }) }}</span></span
      ><span class="text-right">{{ saidOf(k.factor) }}</span>
    </div>
    <button v-if="session.may('shop') && data?.kinds.length" class="act act-quiet mt-3" @click="putBack">
      {{ w('paces.putBack') }}
    </button>
  </section>
</template>
