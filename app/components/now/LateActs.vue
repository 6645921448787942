<script setup lang="ts">
/** What came in late and wants a word: held, entered by a name alone, or against a rule. */
type Late = BenchNow['late'][number]
const bench = inject(BENCH)!
const session = useSession()
const { dayTime } = useFormat()
const me = computed(() => session.person?.id)
const late = computed(() => bench.value?.late ?? [])
const may = (l: Late) => l.personId === me.value || session.may('edit-plan')
/** Held acts of one person on one step stand or fall together: the first speaks for all. */
const held = computed(() =>
  late.value.filter(
    (l, i, all) =>
      l.held && may(l) && !all.slice(0, i).some(x => x.held && x.stepId === l.stepId && x.personId === l.personId),
  ),
)
const withIt = (l: Late) => late.value.filter(x => x.held && x.stepId === l.stepId && x.personId === l.personId)
const byName = computed(() => late.value.filter(l => l.byName && l.personId === me.value))
const broke = computed(() => (session.person?.role === 'owner' ? late.value.filter(l => l.broke) : []))
const timing = ref<Late | null>(null)
const settle = (l: Late, body: BodyOf<'POST /api/late/:id/settle'>) =>
  send('POST /api/late/:id/settle', { id: l.id, body })
const name = (mine: boolean) => send('POST /api/late/names', { body: { ids: byName.value.map(l => l.id), mine } })
</script>

<template>
  <section v-if="held.length || byName.length || broke.length" class="mb-6" data-test="late">
    <h2>{{ w('late.title') }}</h2>
    <div v-for="l in held" :key="l.id" class="verdict verdict-warn my-2" data-test="held">
      <NuxtLink :to="`/pieces/${l.pieceId}/plan`" class="no-underline"
        ><strong v-for="x in withIt(l)" :key="x.id" class="block">{{ x.says }}, {{ dayTime(x.happened_at) }}</strong
        ><span class="caption">{{ l.pieceId }} · {{ l.piece }}</span></NuxtLink
      >
      <p>{{ w('late.held', { by: l.by, why: l.why ?? '' }) }}</p>
      <div class="flex flex-wrap gap-3 mt-2">
        <button class="act" @click="settle(l, { way: 'both' })">{{ w('late.both') }}</button>
        <button class="act act-quiet" @click="timing = l">{{ w('late.times') }}</button>
        <button class="act act-stop" @click="settle(l, { way: 'back' })">
          {{ l.personId === me ? w('late.back') : w('late.backOf', { by: l.by }) }}
        </button>
      </div>
    </div>
    <div v-if="byName.length" class="verdict verdict-warn my-2" data-test="by-name">
      <p>{{ w('late.byName') }}</p>
      <strong v-for="l in byName" :key="l.id" class="block"
        >{{ l.says }}, {{ dayTime(l.happened_at) }} <span class="caption">{{ l.pieceId }} · {{ l.piece }}</span></strong
      >
      <div class="flex flex-wrap gap-3 mt-2">
        <button class="act" @click="name(true)">{{ w('late.mine') }}</button>
        <button class="act act-stop" @click="name(false)">{{ w('late.notMine') }}</button>
      </div>
    </div>
    <div v-for="l in broke" :key="l.id" class="verdict verdict-warn my-2 flex items-center gap-3" data-test="broke">
      <NuxtLink :to="`/pieces/${l.pieceId}/plan`" class="no-underline grow"
        ><strong class="block">{{ l.says }}, {{ dayTime(l.happened_at) }}</strong
        ><span class="caption block">{{ l.pieceId }} · {{ l.piece }}</span
        >{{ w('late.broke', { by: l.by, why: l.why ?? '' }) }}</NuxtLink
      >
      <button class="act act-quiet shrink-0" @click="send('POST /api/late/:id/seen', { id: l.id })">
        {{ w('late.seen') }}
      </button>
    </div>
    <LateTimes v-if="timing" :acts="withIt(timing)" @close="timing = null" />
  </section>
</template>
