<script setup lang="ts">
import { TESTS } from '#core/identify'
import { type FinishClass, FINISH_CLASSES } from '#core/piece'

const route = useRoute()
const { percent, dayTime } = useFormat()
const id = computed(() => Number(route.params.id))
const group = ref('A')
const layer = ref(1)
const spot = ref('')
const extra = ref<Record<string, number>>({})
const word = ref('')
const isFinish = ref<FinishClass | null>(null)
const other = ref('')
type Group = Examination['finishes'][number]
const groupOf = (exam: Examination): Group => exam.finishes.find(g => g.group === group.value) ?? exam.finishes[0]!
const layersOf = (g: Group) =>
  Array.from({ length: Math.max(g.layers.length, extra.value[g.group] ?? 1) }, (_, i) => i + 1)
const found = (exam: Examination) => groupOf(exam).layers.find(l => l.layer === layer.value) ?? null
const fresh = (exam: Examination) => groupOf(exam).layers.at(-1)!
async function test(t: string, result: string, g: string, load: () => Promise<void>) {
  if (
    await send('POST /api/pieces/:id/tests', {
      id: id.value,
      body: {
        test: t,
        result,
        spot: spot.value,
        group: g,
        layer: layer.value,
      },
    })
  ) {
    other.value = ''
    await load()
  }
}
async function withdraw(row: number, load: () => Promise<void>) {
  if (await send('DELETE /api/tests/:id', { id: row })) await load()
}
/** What it is by somebody's word; null: by the tests again. */
async function say(
  g: string,
  load: () => Promise<void>,
  said: { value: FinishClass | null; word: string } = { value: isFinish.value, word: word.value },
) {
  if (
    await send('POST /api/pieces/:id/examination/overrules', {
      id: id.value,
      body: {
        slug: 'finish-is',
        subject: `${g}:${layer.value}`,
        ...said,
      },
    })
  ) {
    word.value = ''
    await load()
  }
}
async function regroup(face: ExamFace, to: string, load: () => Promise<void>) {
  if (await send('PATCH /api/faces/:id', { id: face.id, body: { rowVersion: face.rowVersion, finishGroup: to } }))
    await load()
}
const letters = (exam: Examination) =>
  [
    ...new Set([
      ...exam.faces.map(f => f.finishGroup),
      String.fromCharCode(Math.max(...exam.faces.map(f => f.finishGroup.charCodeAt(0))) + 1),
    ]),
  ]
    .sort()
    .slice(0, 8)
const tests = (exam: Examination) =>
  exam.tests.filter(t => t.finish_group === groupOf(exam).group && t.layer === layer.value)
const resultsOf = (test: string) => Object.keys(TESTS.find(t => t.slug === test)?.results ?? {})
const nameOf = (exam: Examination, face: number) => {
  const f = exam.faces.find(x => x.id === face)!
  return `${f.part}, ${f.name}`
}
function groupName(exam: Examination, g: Group): string {
  const parts = new Set(g.faces.map(f => exam.faces.find(x => x.id === f)!.part))
  return `${w('exam.finishGroup', { g: g.group })}: ${[...parts].join(', ')}`
}
function chooseGroup(letter: string) {
  group.value = letter
  layer.value = 1
}
function addLayer(on: ReturnType<typeof groupOf>) {
  extra.value[on.group] = layersOf(on).length + 1
  layer.value = layersOf(on).length
}
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <div v-if="exam.faces.length" class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-2 gap-x-10 gap-y-8">
      <section>
        <RadioField
          v-if="exam.finishes.length > 1"
          class="mb-3"
          :model-value="groupOf(exam).group"
          :label="w('exam.groups')"
          label-hidden
          :options="exam.finishes.map(g => ({ value: g.group, label: groupName(exam, g) }))"
          @update:model-value="$event && chooseGroup($event)"
        />
        <RadioField
          v-model="layer"
          class="mb-3"
          :label="w('exam.layer')"
          label-hidden
          :options="
            optionsOf(layersOf(groupOf(exam)), l => (l === 1 ? w('exam.topLayer') : w('exam.layerN', { n: l })))
          "
        >
          <button
            v-if="can && layersOf(groupOf(exam)).length < 5"
            class="act act-quiet"
            @click="addLayer(groupOf(exam))"
          >
            {{ w('exam.addLayer') }}
          </button>
        </RadioField>
        <template v-if="found(exam) && (tests(exam).length || found(exam)!.overruled)">
          <p class="text-2xl font-bold" data-test="finish">
            {{ w(wordOf('finish', found(exam)!.overruled?.value ?? found(exam)!.finish)) }}
            <span
              v-if="!found(exam)!.overruled"
              class="clock"
              :class="found(exam)!.verdict === 'sure' ? 'text-moss' : 'text-ochre'"
              >{{ percent(found(exam)!.certainty) }}</span
            >
          </p>
          <p v-if="found(exam)!.overruled">
            {{ w('exam.byWord', { by: found(exam)!.overruled!.by }) }}: {{ found(exam)!.overruled!.word }}
            <span v-if="tests(exam).length" class="caption">{{
              w('exam.worked', { finish: w(`finish.${found(exam)!.finish}`), p: percent(found(exam)!.certainty) })
            }}</span>
          </p>
          <p v-if="found(exam)!.verdict === 'contradictory'" class="verdict verdict-stop" data-test="contradictory">
            {{ w('examine.contradictory') }}
          </p>
          <p v-else-if="found(exam)!.verdict === 'test-again' && !found(exam)!.overruled" class="verdict">
            {{ w('examine.again') }}
          </p>
          <p v-if="tests(exam).length" class="mt-1">
            {{
              w('exam.secondGuess', {
                finish: w(`finish.${found(exam)!.ranked[1]!.finish}`),
                p: percent(found(exam)!.ranked[1]!.p),
              })
            }}
          </p>
          <p v-for="a in found(exam)!.against" :key="a.test" class="mt-1">
            <strong class="text-madder">{{ w('exam.against') }}</strong>
            {{
              w('exam.odd', {
                test: w(wordOf('test', a.test)),
                result: a.result,
                p: (a.p * 100).toFixed(a.p < 0.1 ? 1 : 0),
                finish: w(`finish.${found(exam)!.finish}`),
              })
            }}
          </p>
          <FoldOut v-if="tests(exam).length" class="mt-2" :title="w('examine.why')">
            <table class="w-full text-left">
              <tbody>
                <tr v-for="b in found(exam)!.ranked" :key="b.finish">
                  <td class="py-1">{{ w(`finish.${b.finish}`) }}</td>
                  <td class="w-1/2">
                    <svg viewBox="0 0 100 8" class="w-full h-3" preserveAspectRatio="none" aria-hidden="true">
                      <rect :width="b.p * 100" height="8" fill="var(--color-slate)" />
                    </svg>
                  </td>
                  <td class="clock text-right">{{ percent(b.p) }}</td>
                </tr>
              </tbody>
            </table>
            <p v-for="r in found(exam)!.reasons" :key="r.test" class="caption mt-1">
              {{
                w('examine.ratio', {
                  test: w(wordOf('test', r.test)),
                  result: r.result,
                  times: r.ratio >= 1 ? r.ratio.toFixed(1) : (1 / r.ratio).toFixed(1),
                  way: r.ratio >= 1 ? w('examine.more') : w('examine.less'),
                  second: w(`finish.${found(exam)!.ranked[1]!.finish}`),
                })
              }}
            </p>
            <p class="caption mt-1">
              {{ w('examine.source') }} <NuxtLink to="/judgement">{{ w('exam.howSure') }}</NuxtLink>
            </p>
          </FoldOut>
        </template>
        <p v-else>{{ layer > 1 ? w('exam.noDeeper') : w('examine.noTest') }}</p>
        <div v-if="can" class="mt-3" data-test="known-finish">
          <button
            v-if="found(exam)?.overruled"
            class="act act-quiet"
            @click="say(groupOf(exam).group, load, { value: null, word: w('exam.byTests') })"
          >
            {{ w('exam.byTests') }}
          </button>
          <button
            v-else-if="!tests(exam).length && layer === 1"
            class="act act-quiet"
            @click="say(groupOf(exam).group, load, { value: 'none', word: w('exam.bareWord') })"
          >
            {{ w('exam.bareKnown') }}
          </button>
          <FoldOut class="mt-1" :title="w('exam.known')">
            <form class="flex flex-wrap gap-2 items-end" @submit.prevent="say(groupOf(exam).group, load)">
              <ChoiceField
                v-model="isFinish"
                :label="w('exam.itIs')"
                :options="optionsOf(FINISH_CLASSES, f => w(`finish.${f}`))"
              /><input
                v-model="word"
                class="field !w-48 grow"
                required
                maxlength="500"
                :aria-label="w('plan.word')"
                :placeholder="w('plan.word')"
              /><button class="act act-quiet" :disabled="isFinish === null">{{ w('plan.overrule') }}</button>
            </form>
          </FoldOut>
        </div>
        <h3 v-if="tests(exam).length" class="mt-5">{{ w('examine.done') }}</h3>
        <div v-for="t in tests(exam)" :key="t.id" class="row flex items-center gap-3">
          <span class="grow"
            >{{ w(`test.${t.test}`) }}: <strong>{{ t.result }}</strong><span class="caption block"
              >{{ t.spot ? `${t.spot} · ` : '' }}{{ t.by_name }}, {{ dayTime(t.at) }}</span
            ></span
          ><button v-if="can" class="act act-quiet" @click="withdraw(t.id, load)">{{ w('takeBack') }}</button>
        </div>
      </section>
      <section>
        <template v-if="can">
          <h3>{{ w('examine.next') }}</h3>
          <div
            v-for="(n, i) in (found(exam) ?? fresh(exam)).next.slice(0, 3)"
            :key="n.test"
            class="row"
            data-test="next-test"
          >
            <p>
              <strong :class="i === 0 ? 'text-verdigris' : ''">{{ w(`test.${n.test}`) }}</strong>{{ ' ' }}
              <span class="caption">{{
                w('examine.gain', {
                  bits: n.gain_bits.toFixed(2),
                  harm: n.harm,
                  solvent: n.solvent,
                  minutes: n.minutes,
                })
              }}</span>
            </p>
            <p class="caption">{{ n.how }}</p>
            <div class="flex flex-wrap gap-2 mt-2">
              <button
                v-for="r in n.results"
                :key="r"
                class="act act-quiet"
                @click="test(n.test, r, groupOf(exam).group, load)"
              >
                {{ r }}
              </button>
            </div>
          </div>
          <div class="row flex flex-wrap items-center gap-2">
            <ChoiceField
              v-model="other"
              :label="w('examine.other')"
              label-hidden
              :options="[
                { value: '', label: w('examine.other') },
                ...optionsOf(
                  [...(found(exam) ?? fresh(exam)).next.map(n => n.test), ...tests(exam).map(x => x.test)],
                  t => `${w(`test.${t}`)}${tests(exam).some(x => x.test === t) ? ` (${w('exam.anew')})` : ''}`,
                ),
              ]"
              class="w-64"
            />
            <button
              v-for="r in resultsOf(other)"
              :key="r"
              class="act act-quiet"
              @click="test(other, r, groupOf(exam).group, load)"
            >
              {{ r }}
            </button>
          </div>
          <label class="row block"
            >{{ w('exam.spot') }} <input v-model="spot" class="field" maxlength="120" :placeholder="w('exam.spotHint')"
          /></label>
        </template>
        <FoldOut class="mt-4" :open="exam.finishes.length > 1" :title="w('exam.groupsTitle')">
          <p class="caption">{{ w('exam.groupsWhy') }}</p>
          <div v-for="f in exam.faces" :key="f.id" class="row flex items-center gap-3">
            <span class="grow">{{ nameOf(exam, f.id) }}</span><ChoiceField
              :model-value="f.finishGroup"
              :label="`${w('exam.groups')}: ${nameOf(exam, f.id)}`"
              label-hidden
              :options="optionsOf(letters(exam), l => w('exam.finishGroup', { g: l }))"
              :disabled="!can"
              class="w-32"
              @update:model-value="regroup(f, $event, load)"
            />
          </div>
        </FoldOut>
      </section>
    </div>
  </ExaminePage>
</template>
