<script setup lang="ts">
const route = useRoute()
const session = useSession()
const { dayTime, day } = useFormat()
const id = computed(() => Number(route.params.id))
const { data: kept, load: loadKept } = useLive(
  'GET /api/pieces/:id/examinations',
  (topic, piece) => piece === id.value,
  () => ({ id: id.value }),
)
const keptOptions = computed(() =>
  (kept.value ?? []).map(e => ({ value: String(e.id), label: `${e.name}, ${dayTime(e.at)}` })),
)
const name = ref('')
const before = ref('')
const after = ref('now')
const compared = shallowRef<AnswerOf<'GET /api/pieces/:id/comparison'> | null>(null)
async function keep() {
  if (await send('POST /api/pieces/:id/examinations', { id: id.value, body: { name: name.value } })) {
    name.value = ''
    await loadKept()
  }
}
async function readIn(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const form = new FormData()
  form.append('report', file)
  if (await send('POST /api/pieces/:id/examinations/read', { id: id.value, body: form })) await loadKept()
  input.value = ''
}
async function compare() {
  try {
    compared.value = await call('GET /api/pieces/:id/comparison', {
      id: id.value,
      query: { before: before.value, after: after.value },
    })
  } catch (error) {
    useNotes().show(problem(error).message, 'stop')
  }
}
const colour = {
  new: 'text-madder',
  worse: 'text-madder',
  better: 'text-moss',
  gone: 'text-moss',
  same: 'text-soft',
} as const
const link = (which: string | number, format: string) =>
  `/api/pieces/${id.value}/report?which=${which}&format=${format}`
</script>

<template>
  <ExaminePage v-slot="{ exam, can }">
    <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-2 gap-x-10 gap-y-8">
      <section>
        <h2>{{ w('report.title') }}</h2>
        <div class="flex flex-wrap gap-2 mt-2">
          <a class="act no-underline" :href="link('now', 'pdf')" target="_blank">{{ w('report.pdf') }}</a><a
            class="act act-quiet no-underline"
            :href="link('now', 'json')"
            download
            >{{ w('report.json') }}</a
          >
        </div>
        <h3 class="mt-5">{{ w('report.notExamined') }}</h3>
        <ul class="list-disc pl-6">
          <li v-for="n in exam.notExamined" :key="n">{{ n }}</li>
        </ul>
        <p v-if="!exam.notExamined.length">{{ w('report.allExamined') }}</p>
      </section>
      <section>
        <h2>{{ w('report.kept') }}</h2>
        <div v-for="e in kept ?? []" :key="e.id" class="row flex flex-wrap items-center gap-3" data-test="kept">
          <span class="grow"
            ><strong>{{ e.name }}</strong
            >{{ ' ' }} <span v-if="e.origin === 'read-in'" class="text-slate">{{ w('report.readIn') }}</span><span
              class="caption block"
              >{{ e.by_name }}, {{ dayTime(e.at) }} · SHA-256 {{ e.sha256.slice(0, 12) }}…</span
            ></span
          ><a class="act act-quiet no-underline" :href="link(e.id, 'pdf')" target="_blank">PDF</a
          ><a class="act act-quiet no-underline" :href="link(e.id, 'json')" download>JSON</a>
        </div>
        <p v-if="!kept?.length" class="mt-1">{{ w('report.noneKept') }}</p>
        <form v-if="can" class="flex flex-wrap gap-2 mt-3" @submit.prevent="keep">
          <input
            v-model="name"
            class="field !w-56 grow"
            required
            maxlength="120"
            :placeholder="w('report.name')"
            :aria-label="w('report.name')"
          /><button class="act act-quiet">{{ w('report.keep') }}</button>
        </form>
        <label v-if="session.may('plan') && can" class="act act-quiet mt-3 cursor-pointer"
          >{{ w('report.read') }}<input type="file" class="sr-only" accept="application/json" @change="readIn"
        /></label>

        <template v-if="kept?.length">
          <h2 class="mt-6">{{ w('report.compare') }}</h2>
          <form class="grid grid-cols-[1fr_1fr_auto] gap-2 items-end" @submit.prevent="compare">
            <ChoiceField v-model="before" :label="w('report.earlier')" :options="keptOptions" /><ChoiceField
              v-model="after"
              :label="w('report.later')"
              :options="[...keptOptions, { value: 'now', label: w('report.now') }]"
            /><button class="act act-quiet">{{ w('report.compareIt') }}</button>
          </form>
          <div v-if="compared" data-test="comparison" class="mt-3">
            <p class="caption">
              {{ compared.before.name }}, {{ day(compared.before.made_at) }} – {{ compared.after.name }},
              {{ day(compared.after.made_at) }}
            </p>
            <p v-for="f in compared.findings" :key="f.part + f.face + f.kind" class="row">
              <strong :class="colour[f.change]">{{ w(`report.change.${f.change}`) }}</strong>
              {{ w(`finding.${f.kind}`) }}, {{ f.part }}, {{ f.face }}
              <span class="caption clock"
                >{{ w('examine.grade') }} {{ f.grade[0] ?? '–' }} – {{ f.grade[1] ?? '–' }},
                {{ Math.round(f.area_m2[0] * 1e4) }} – {{ Math.round(f.area_m2[1] * 1e4) }} cm²</span
              >
            </p>
            <p v-for="f in compared.finishes" :key="f.group + f.layer" class="row">
              {{ w('exam.finishGroup', { g: f.group }) }}{{ f.layer > 1 ? ` ${f.layer}` : '' }}:
              {{ f.before ? w(wordOf('finish', f.before)) : '–' }} – {{ f.after ? w(wordOf('finish', f.after)) : '–' }}
            </p>
            <p v-for="h in compared.hazards" :key="h.name" class="row">
              {{ h.name }}: {{ h.before ? w(wordOf('exam', `standing.${h.before}`)) : '–' }} –
              {{ h.after ? w(wordOf('exam', `standing.${h.after}`)) : '–' }}
            </p>
            <p v-for="m in compared.moisture" :key="m.face" class="row">
              {{ m.face }}: <span class="clock">{{ m.before_pct ?? '–' }} – {{ m.after_pct ?? '–' }} %</span>
            </p>
            <p v-for="i in compared.items" :key="i.name" class="row">
              {{ i.name }}: {{ i.before ? w(wordOf('parts', i.before)) : '–' }} –
              {{ i.after ? w(wordOf('parts', i.after)) : '–' }}
            </p>
          </div>
        </template>
      </section>
    </div>
  </ExaminePage>
</template>
