<script setup lang="ts">
import { FINDING_KINDS } from '#core/plan'
import { TESTS } from '#core/identify'

const { page, load } = inject(PIECE)!
const session = useSession()
const { percent, dayTime } = useFormat()
const can = computed(() => session.may('owner', 'lead', 'finisher') && page.value!.piece.state !== 'handed-over')
const finding = ref({ faceId: 0, kind: 'scratches', grade: 2, wish: 'mend', note: '' })
watchEffect(() => { if (!finding.value.faceId && page.value?.faces[0]) finding.value.faceId = page.value.faces[0].id })
const after = async (done: unknown) => { if (done) await load() }
const id = computed(() => page.value!.piece.id)
const addFinding = async () => after(await send('POST', `/api/pieces/${id.value}/findings`, finding.value))
const withdraw = async (what: 'findings' | 'tests', row: number) => after(await send('DELETE', `/api/${what}/${row}`))
const addTest = async (test: string, result: string) => after(await send('POST', `/api/pieces/${id.value}/tests`, { test, result, spot: '' }))
const method = ref('')
const addEvidence = async (answer: 'yes' | 'no') => after(await send('POST', `/api/pieces/${id.value}/evidence`, { kind: 'lead-test', answer, method: method.value }))
const other = ref('')
const otherResults = computed(() => Object.keys(TESTS.find(t => t.slug === other.value)?.results ?? {}))
const faceName = (face: number) => { const f = page.value!.faces.find(x => x.id === face); return f ? `${f.part}, ${f.name}` : '' }
async function addPictures(event: Event) {
  const input = event.target as HTMLInputElement
  for (const file of input.files ?? []) {
    const form = new FormData()
    form.append('picture', file)
    if (!await send('POST', `/api/pieces/${id.value}/photographs`, form)) break
  }
  input.value = ''
  await load()
}
</script>

<template>
  <div v-if="page" class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[1fr_1fr] gap-x-10 gap-y-8">
    <section>
      <h2>{{ $t('examine.finish') }}</h2>
      <template v-if="page.tests.length">
        <p class="mt-2 text-2xl font-bold" data-test="finish">{{ $t(`finish.${page.examination.finish}`) }} <span class="clock" :class="page.examination.verdict === 'sure' ? 'text-moss' : 'text-ochre'">{{ percent(page.examination.certainty) }}</span></p>
        <p v-if="page.examination.contradictory" class="verdict verdict-stop">{{ $t('examine.contradictory') }}</p>
        <p v-else-if="page.examination.verdict === 'test-again'" class="verdict">{{ $t('examine.again') }}</p>
        <details class="mt-2">
          <summary class="min-h-11 py-2 underline cursor-pointer">{{ $t('examine.why') }}</summary>
          <table class="w-full text-left">
            <tbody>
              <tr v-for="b in page.examination.ranked" :key="b.finish"><td class="py-1">{{ $t(`finish.${b.finish}`) }}</td><td class="w-1/2"><svg viewBox="0 0 100 8" class="w-full h-3" preserveAspectRatio="none" aria-hidden="true"><rect :width="b.p * 100" height="8" fill="var(--color-slate)" /></svg></td><td class="clock text-right">{{ percent(b.p) }}</td></tr>
            </tbody>
          </table>
          <p v-for="r in page.examination.reasons" :key="r.test" class="caption mt-1">{{ $t('examine.ratio', { test: $t(`test.${r.test}`), result: r.result, times: r.ratio >= 1 ? r.ratio.toFixed(1) : (1 / r.ratio).toFixed(1), way: r.ratio >= 1 ? $t('examine.more') : $t('examine.less'), second: $t(`finish.${page.examination.ranked[1]!.finish}`) }) }}</p>
          <p class="caption mt-1">{{ $t('examine.source') }}</p>
        </details>
      </template>
      <p v-else class="mt-2">{{ $t('examine.noTest') }}</p>

      <template v-if="can">
        <h3 class="mt-5">{{ $t('examine.next') }}</h3>
        <div v-for="(n, i) in page.examination.next" :key="n.test" class="row" data-test="next-test">
          <p><strong :class="i === 0 ? 'text-verdigris' : ''">{{ $t(`test.${n.test}`) }}</strong> <span class="caption">{{ $t('examine.gain', { bits: n.gain_bits.toFixed(2), harm: n.harm, minutes: n.minutes }) }}</span></p>
          <p class="caption">{{ n.how }}</p>
          <div class="flex flex-wrap gap-2 mt-2"><button v-for="r in n.results" :key="r" class="act act-quiet" @click="addTest(n.test, r)">{{ r }}</button></div>
        </div>
        <div class="row flex flex-wrap items-center gap-2">
          <select v-model="other" class="field !w-64" :aria-label="$t('examine.other')"><option value="">{{ $t('examine.other') }}</option><option v-for="t in page.examination.all" :key="t.test" :value="t.test">{{ $t(`test.${t.test}`) }}</option></select>
          <button v-for="r in otherResults" :key="r" class="act act-quiet" @click="addTest(other, r).then(() => other = '')">{{ r }}</button>
        </div>
      </template>
      <h3 v-if="page.tests.length" class="mt-5">{{ $t('examine.done') }}</h3>
      <div v-for="t in page.tests" :key="t.id" class="row flex items-center gap-3"><span class="grow">{{ $t(`test.${t.test}`) }}: <strong>{{ t.result }}</strong><span class="caption block">{{ t.by_name }}, {{ dayTime(t.at) }}</span></span><button v-if="can" class="act act-quiet" @click="withdraw('tests', t.id)">{{ $t('takeBack') }}</button></div>
    </section>

    <section>
      <details v-if="session.may('owner', 'lead', 'office') && page.piece.state === 'active'" class="mb-4">
        <summary class="min-h-11 py-2 underline cursor-pointer">{{ $t('examine.change') }}</summary>
        <PieceWish :piece="page.piece" @changed="load" />
      </details>
      <h2>{{ $t('examine.faces') }} <span class="caption clock">{{ page.area_m2.toFixed(2) }} m²</span></h2>
      <table class="w-full text-left mt-2">
        <thead class="caption"><tr><th>{{ $t('intake.face') }}</th><th>{{ $t('intake.size') }}</th><th>{{ $t('intake.species') }}</th><th class="text-right">m²</th></tr></thead>
        <tbody><tr v-for="f in page.faces" :key="f.id" class="border-t border-line"><td class="py-2">{{ f.part }}, {{ f.name }}<span class="caption block">{{ $t(`scope.${f.scope}`) }}, {{ $t(`shape.${f.shape}`) }}</span></td><td class="clock">{{ f.copies > 1 ? `${f.copies} × ` : '' }}{{ f.length_typed }} × {{ f.width_typed }}</td><td>{{ f.species }}<span v-if="f.substrate === 'veneer'" class="caption block">{{ $t('substrate.veneer') }} {{ f.veneer_typed ?? '?' }}</span></td><td class="clock text-right">{{ f.area_m2.toFixed(3) }}</td></tr></tbody>
      </table>

      <h2 class="mt-6">{{ $t('examine.findings') }}</h2>
      <div v-for="f in page.findings" :key="f.id" class="row flex items-center gap-3" data-test="finding"><span class="grow"><strong>{{ $t(`finding.${f.kind}`) }}</strong>, {{ $t('examine.grade') }} {{ f.grade }}<span class="caption block">{{ faceName(f.face_id) }} · {{ $t(`wish.${f.wish}`) }} {{ f.note }}</span></span><button v-if="can" class="act act-quiet" @click="withdraw('findings', f.id)">{{ $t('takeBack') }}</button></div>
      <p v-if="!page.findings.length" class="mt-1">{{ $t('examine.noFinding') }}</p>
      <form v-if="can" class="row grid grid-cols-2 gap-3" @submit.prevent="addFinding">
        <label>{{ $t('examine.what') }} <select v-model="finding.kind" class="field"><option v-for="k in FINDING_KINDS" :key="k" :value="k">{{ $t(`finding.${k}`) }}</option></select></label>
        <label>{{ $t('intake.face') }} <select v-model.number="finding.faceId" class="field"><option v-for="f in page.faces" :key="f.id" :value="f.id">{{ f.part }}, {{ f.name }}</option></select></label>
        <div role="radiogroup" :aria-label="$t('examine.grade')"><span class="block">{{ $t('examine.gradeLong') }}</span><div class="flex"><button v-for="g in 5" :key="g" type="button" role="radio" :aria-checked="finding.grade === g" class="act !px-0 w-12" :class="finding.grade === g ? '' : 'act-quiet'" @click="finding.grade = g">{{ g }}</button></div></div>
        <label>{{ $t('examine.wish') }} <select v-model="finding.wish" class="field"><option v-for="w in ['mend', 'keep', 'tolerate']" :key="w" :value="w">{{ $t(`wish.${w}`) }}</option></select></label>
        <button class="act col-span-2">{{ $t('examine.addFinding') }}</button>
      </form>

      <template v-if="page.leadSuspected || page.evidence.length">
        <h2 class="mt-6">{{ $t('examine.lead') }}</h2>
        <p v-if="page.leadSuspected" class="verdict verdict-stop mt-2">{{ $t('examine.leadBan') }}</p>
        <div v-for="e in page.evidence" :key="e.at" class="row">{{ $t(`lead.${e.answer}`) }}: {{ e.method }}<span class="caption block">{{ e.by_name }}, {{ dayTime(e.at) }}</span></div>
        <form v-if="session.may('owner', 'lead') && page.leadSuspected" class="row flex flex-wrap gap-3 items-end" @submit.prevent>
          <TextField v-model="method" :label="$t('examine.leadMethod')" class="grow" />
          <button class="act act-quiet" @click="addEvidence('no')">{{ $t('examine.leadNo') }}</button><button class="act act-stop" @click="addEvidence('yes')">{{ $t('examine.leadYes') }}</button>
        </form>
      </template>

      <h2 class="mt-6">{{ $t('examine.photographs') }}</h2>
      <div class="flex flex-wrap gap-2 mt-2"><a v-for="p in page.photographs" :key="p.address" :href="`/api/photographs/${p.address}`" target="_blank"><img :src="`/api/photographs/${p.address}?size=thumb`" class="h-28" :alt="p.taken_at ? dayTime(p.taken_at) : $t('examine.photograph')"></a></div>
      <label v-if="page.piece.state !== 'handed-over'" class="act act-quiet mt-3">{{ $t('examine.addPhotograph') }}<input type="file" class="sr-only" accept="image/jpeg,image/png,image/webp" multiple @change="addPictures"></label>
    </section>
  </div>
</template>
