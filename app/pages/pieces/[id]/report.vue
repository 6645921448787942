<script setup lang="ts">
import type { InternalApi } from 'nitropack/types'
import { PATCH_METHODS, PATCH_RESULTS } from '#core/examine'

const route = useRoute()
const session = useSession()
const { dayTime, day, hours } = useFormat()
const id = computed(() => Number(route.params.id))
const { data: kept, load: loadKept } = useLive<InternalApi['/api/pieces/:id/examinations']['get']>(() => `/api/pieces/${id.value}/examinations`, (topic, piece) => topic === 'all' || piece === id.value)
const name = ref('')
const before = ref('')
const after = ref('now')
const compared = shallowRef<InternalApi['/api/pieces/:id/comparison']['get'] | null>(null)
async function keep() {
  if (await send('POST', `/api/pieces/${id.value}/examinations`, { name: name.value })) { name.value = ''; await loadKept() }
}
async function readIn(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const form = new FormData()
  form.append('report', file)
  if (await send('POST', `/api/pieces/${id.value}/examinations/read`, form)) await loadKept()
  input.value = ''
}
async function compare() {
  try { compared.value = await fetchAs(`/api/pieces/${id.value}/comparison?before=${before.value}&after=${after.value}`) }
  catch (error) { useNotes().show(problem(error).message, 'stop') }
}
const patch = ref({ faceId: 0, method: 'stripper', length: '200', width: '200', minutes: null as number | null, result: 'all-off', note: '' })
async function addPatch(exam: Examination, load: () => Promise<void>) {
  if (await send('POST', `/api/pieces/${id.value}/patches`, { ...patch.value, faceId: patch.value.faceId || exam.faces[0]!.id })) { patch.value.minutes = null; await load() }
}
const colour = { new: 'text-madder', worse: 'text-madder', better: 'text-moss', gone: 'text-moss', same: 'text-soft' } as const
const link = (which: string | number, format: string) => `/api/pieces/${id.value}/report?which=${which}&format=${format}`
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-2 gap-x-10 gap-y-8">
      <section>
        <h2>{{ $t('report.title') }}</h2>
        <div class="flex flex-wrap gap-2 mt-2"><a class="act no-underline" :href="link('now', 'pdf')" target="_blank">{{ $t('report.pdf') }}</a><a class="act act-quiet no-underline" :href="link('now', 'json')" download>{{ $t('report.json') }}</a></div>
        <h3 class="mt-5">{{ $t('report.notExamined') }}</h3>
        <ul class="list-disc pl-6"><li v-for="n in exam.notExamined" :key="n">{{ n }}</li></ul>
        <p v-if="!exam.notExamined.length">{{ $t('report.allExamined') }}</p>

        <h2 class="mt-6">{{ $t('patch.title') }}</h2>
        <p class="caption">{{ $t('patch.why') }}</p>
        <table v-if="exam.patches.length" class="w-full text-left mt-2">
          <thead class="caption"><tr><th>{{ $t('patch.method') }}</th><th>{{ $t('patch.size') }}</th><th class="text-right pr-6">min</th><th>{{ $t('patch.result') }}</th><th class="text-right">{{ $t('patch.piece') }}</th></tr></thead>
          <tbody><tr v-for="p in exam.patches" :key="p.at" class="border-t border-line" data-test="patch"><td class="py-2">{{ $t(`patch.${p.method}`) }}</td><td class="clock">{{ Math.round(p.length_mm) }} × {{ Math.round(p.width_mm) }}</td><td class="clock text-right pr-6">{{ p.minutes }}</td><td>{{ $t(`patch.${p.result}`) }}</td><td class="clock text-right">{{ hours(p.piece_min) }}</td></tr></tbody>
        </table>
        <p v-if="exam.patchAdvice" class="verdict mt-2" data-test="patch-advice"><strong>{{ exam.patchAdvice.better ? $t('patch.better', { method: $t(`patch.${exam.patchAdvice.better}`) }) : $t('patch.neither') }}</strong> <template v-if="exam.patchAdvice.saves_min > 0">{{ $t('patch.saves', { t: hours(exam.patchAdvice.saves_min) }) }}</template> {{ exam.patchAdvice.says.join(' ') }}</p>
        <form v-if="can && exam.faces.length" class="grid grid-cols-2 sm:grid-cols-3 gap-2 mt-3 items-end" @submit.prevent="addPatch(exam, load)">
          <label>{{ $t('patch.method') }} <select v-model="patch.method" class="field"><option v-for="m in PATCH_METHODS" :key="m" :value="m">{{ $t(`patch.${m}`) }}</option></select></label>
          <label>{{ $t('intake.face') }} <select v-model.number="patch.faceId" class="field"><option :value="0" disabled hidden>{{ exam.faces[0]!.part }}, {{ exam.faces[0]!.name }}</option><option v-for="f in exam.faces" :key="f.id" :value="f.id">{{ f.part }}, {{ f.name }}</option></select></label>
          <label>{{ $t('patch.result') }} <select v-model="patch.result" class="field"><option v-for="r in PATCH_RESULTS" :key="r" :value="r">{{ $t(`patch.${r}`) }}</option></select></label>
          <TextField v-model="patch.length" :label="`${$t('intake.length')} (${session.shop?.length_unit})`" /><TextField v-model="patch.width" :label="`${$t('intake.width')} (${session.shop?.length_unit})`" />
          <label>{{ $t('patch.minutes') }} <input v-model.number="patch.minutes" type="number" min="0.5" step="0.5" class="field" required></label>
          <input v-model="patch.note" class="field col-span-2" maxlength="500" :placeholder="$t('patch.risk')" :aria-label="$t('patch.risk')"><button class="act act-quiet">{{ $t('patch.add') }}</button>
        </form>
      </section>
      <section>
        <h2>{{ $t('report.kept') }}</h2>
        <div v-for="e in kept ?? []" :key="e.id" class="row flex flex-wrap items-center gap-3" data-test="kept"><span class="grow"><strong>{{ e.name }}</strong> <span v-if="e.origin === 'read-in'" class="text-slate">{{ $t('report.readIn') }}</span><span class="caption block">{{ e.by_name }}, {{ dayTime(e.at) }} · SHA-256 {{ e.sha256.slice(0, 12) }}…</span></span><a class="act act-quiet no-underline" :href="link(e.id, 'pdf')" target="_blank">PDF</a><a class="act act-quiet no-underline" :href="link(e.id, 'json')" download>JSON</a></div>
        <p v-if="!kept?.length" class="mt-1">{{ $t('report.noneKept') }}</p>
        <form v-if="can" class="flex flex-wrap gap-2 mt-3" @submit.prevent="keep"><input v-model="name" class="field !w-56 grow" required maxlength="120" :placeholder="$t('report.name')" :aria-label="$t('report.name')"><button class="act act-quiet">{{ $t('report.keep') }}</button></form>
        <label v-if="session.may('owner', 'lead') && can" class="act act-quiet mt-3 cursor-pointer">{{ $t('report.read') }}<input type="file" class="sr-only" accept="application/json" @change="readIn"></label>

        <template v-if="kept?.length">
          <h2 class="mt-6">{{ $t('report.compare') }}</h2>
          <form class="grid grid-cols-[1fr_1fr_auto] gap-2 items-end" @submit.prevent="compare"><label>{{ $t('report.earlier') }} <select v-model="before" class="field" required><option value="" disabled>–</option><option v-for="e in kept" :key="e.id" :value="String(e.id)">{{ e.name }}</option></select></label><label>{{ $t('report.later') }} <select v-model="after" class="field"><option v-for="e in kept" :key="e.id" :value="String(e.id)">{{ e.name }}</option><option value="now">{{ $t('report.now') }}</option></select></label><button class="act act-quiet">{{ $t('report.compareIt') }}</button></form>
          <div v-if="compared" data-test="comparison" class="mt-3">
            <p class="caption">{{ compared.before.name }}, {{ day(compared.before.made_at) }} – {{ compared.after.name }}, {{ day(compared.after.made_at) }}</p>
            <p v-for="f in compared.findings" :key="f.part + f.face + f.kind" class="row"><strong :class="colour[f.change]">{{ $t(`report.change.${f.change}`) }}</strong> {{ $t(`finding.${f.kind}`) }}, {{ f.part }}, {{ f.face }} <span class="caption clock">{{ $t('examine.grade') }} {{ f.grade[0] ?? '–' }} – {{ f.grade[1] ?? '–' }}, {{ Math.round(f.area_m2[0] * 1e4) }} – {{ Math.round(f.area_m2[1] * 1e4) }} cm²</span></p>
            <p v-for="f in compared.finishes" :key="f.group + f.layer" class="row">{{ $t('exam.finishGroup', { g: f.group }) }}{{ f.layer > 1 ? ` ${f.layer}` : '' }}: {{ f.before ? $t(`finish.${f.before}`) : '–' }} – {{ f.after ? $t(`finish.${f.after}`) : '–' }}</p>
            <p v-for="h in compared.hazards" :key="h.name" class="row">{{ h.name }}: {{ h.before ? $t(`exam.standing.${h.before}`) : '–' }} – {{ h.after ? $t(`exam.standing.${h.after}`) : '–' }}</p>
            <p v-for="m in compared.moisture" :key="m.face" class="row">{{ m.face }}: <span class="clock">{{ m.before_pct ?? '–' }} – {{ m.after_pct ?? '–' }} %</span></p>
            <p v-for="i in compared.items" :key="i.name" class="row">{{ i.name }}: {{ i.before ? $t(`parts.${i.before}`) : '–' }} – {{ i.after ? $t(`parts.${i.after}`) : '–' }}</p>
          </div>
        </template>
      </section>
    </div>
  </ExaminePage>
</template>
