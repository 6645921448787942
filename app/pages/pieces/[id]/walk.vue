<script setup lang="ts">
const route = useRoute()
const busy = ref(false)
const again = ref<string | null>(null)
async function answer(key: string, options: string[], load: () => Promise<void>) {
  busy.value = true
  const done = await send('POST /api/pieces/:id/walk', { id: Number(route.params.id), body: { key, options } })
  if (done) again.value = null
  await load()
  busy.value = false
}
const bits = (n: number, of: number) => (of ? (n / of) * 100 : 0)
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can, id }">
    <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)] gap-x-10 gap-y-6">
      <div>
        <WalkCard
          v-for="q in [exam.walk.questions.find(x => x.key === again) ?? exam.walk.next].filter(
            x => x !== null && x !== undefined,
          )"
          :key="q.key"
          :question="q"
          :busy="busy || !can"
          @answer="answer(q.key, $event, load)"
        />
        <template v-if="!exam.walk.next && !again">
          <h2 class="text-2xl!">{{ w('exam.walkDone') }}</h2>
          <NuxtLink
            v-if="exam.findings.some(f => f.place.shape === 'unplaced')"
            :to="`/pieces/${id}`"
            class="act mt-4 no-underline"
            >{{ w('exam.drawThem') }}</NuxtLink
          >
          <NuxtLink v-else :to="`/pieces/${id}/finish`" class="act mt-4 no-underline">{{
            w('exam.testFinish')
          }}</NuxtLink>
        </template>
        <button v-if="again" class="act act-quiet mt-4" @click="again = null">{{ w('cancel') }}</button>
      </div>
      <div>
        <h2>{{ w('exam.walkSoFar', { done: exam.walk.done, total: exam.walk.total }) }}</h2>
        <div
          v-for="s in exam.walk.stations.filter(x => x.total)"
          :key="s.station"
          class="grid grid-cols-[8rem_1fr_3rem] items-center gap-3 py-1"
          data-test="station"
          :data-station="s.station"
        >
          <span :class="exam.walk.next?.station === s.station ? 'font-bold' : ''">{{ w(`station.${s.station}`) }}</span>
          <svg viewBox="0 0 100 8" preserveAspectRatio="none" class="w-full h-2.5" aria-hidden="true">
            <rect width="100" height="8" fill="var(--color-line)" />
            <rect
              :width="bits(s.done, s.total)"
              height="8"
              :fill="s.done === s.total ? 'var(--color-moss)' : 'var(--color-slate)'"
            />
          </svg>
          <span class="clock text-right">{{ s.done }}/{{ s.total }}</span>
        </div>
        <FoldOut class="mt-4" :open="!exam.walk.next" :title="w('exam.answers')">
          <div v-for="q in exam.walk.questions.filter(x => x.answer)" :key="q.key" class="row flex items-center gap-3">
            <span class="grow"
              ><span class="caption block">{{ q.part ? `${q.part}: ` : '' }}{{ q.asks }}</span
              >{{
                q.options
                  .filter(o => q.answer!.includes(o.slug))
                  .map(o => (o.finding && !o.says ? w(`finding.${o.finding}`) : o.says))
                  .join(', ')
              }}</span
            ><button v-if="can" class="act act-quiet" @click="again = q.key">{{ w('exam.anew') }}</button>
          </div>
        </FoldOut>
      </div>
    </div>
  </ExaminePage>
</template>
