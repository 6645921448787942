<script setup lang="ts">
import { cautionsOfAll } from '#core/materials'
import { scaledUp, toleranceOf } from '#core/mixing'
import { cautionText } from '#core/safety'

interface Advice {
  takes: number
  before: number
  after: number
  newPot: boolean
  total_g: number
  add: { name: string; g: number }[]
}
const route = useRoute()
const id = computed(() => Number(route.params.id))
const session = useSession()
const clock = useClock()
const { time, dayTime, span } = useFormat()
const {
  data: pot,
  failed,
  load,
} = useLive(
  'GET /api/batches/:id',
  topic => topic !== 'air',
  () => ({ id: id.value }),
)
const can = computed(() => session.may('mix') && pot.value?.closed_at === null)
const turn = computed(() => Math.max(0, ...(pot.value?.lines ?? []).map(l => l.turn)))
const lines = computed(() => (pot.value?.lines ?? []).filter(l => l.turn === turn.value))
const at = ref<number | null>(null)
const short = (l: { wanted_g: number; poured_g: number | null }) =>
  l.poured_g === null || l.poured_g < l.wanted_g - toleranceOf(l.wanted_g, pot.value!.smallest_g)
const cautions = computed(() => cautionsOfAll((pot.value?.lines ?? []).flatMap(l => l.class ?? [])))
const current = computed(() => lines.value.find(l => l.id === at.value) ?? lines.value.find(short) ?? null)
const rest = computed(() =>
  pot.value
    ? scaledUp(
        lines.value.map(l => ({ name: l.name, wanted_g: l.wanted_g, poured_g: l.poured_g ?? 0 })),
        t => toleranceOf(t, pot.value!.smallest_g),
      )
    : null,
)
const inPot = computed(() => (pot.value?.contents ?? []).reduce((s, c) => s + c.g, 0))
const advice = shallowRef<Advice | null>(null)
type PotAct = BodyOf<'POST /api/batches/:id/acts'>
type ActOf<Kind> = Omit<Extract<PotAct, { kind: Kind }>, 'kind' | 'rowVersion'>
async function act<Kind extends PotAct['kind']>(kind: Kind, more: ActOf<Kind> = {} as ActOf<Kind>) {
  const done = await send('POST /api/batches/:id/acts', {
    id: id.value,
    body: { kind, rowVersion: pot.value!.row_version, ...more } as unknown as PotAct,
  })
  if (done) {
    useNotes().show(done.says)
    advice.value = (done.advice as Advice | undefined) ?? null
  }
  at.value = null
  await load()
}
const left = ref(0)
const place = ref('')
watch(
  () => Math.round(pot.value?.left_g ?? inPot.value),
  g => {
    left.value = g
  },
)
watch(
  () => pot.value?.place ?? '',
  p => {
    place.value = p
  },
)
const tried = computed(() => pot.value?.tries.find(t => t.turn === turn.value) ?? null)
const lastTry = computed(() => pot.value?.tries.at(-1) ?? null)
</script>

<template>
  <div>
    <ColourNav />
    <p v-if="failed" class="verdict verdict-stop">{{ failed.message }}</p>
    <div v-if="pot" class="grid lg:grid-cols-[1fr_1fr] gap-x-10 gap-y-6">
      <section class="grid gap-4 content-start">
        <div>
          <h1>{{ w('mix.pot', { id: pot.id }) }} {{ pot.name }}</h1>
          <p class="caption">
            <NuxtLink v-if="pot.piece_id" :to="`/pieces/${pot.piece_id}/colour`" class="underline">{{
              pot.piece
            }}</NuxtLink>
            {{ pot.by_name }}, {{ dayTime(pot.at) }}
          </p>
          <LabelLinks :says="w('mix.label')" :address="`/api/batches/${pot.id}/label`" />
          <p
            v-if="pot.potEnds_ms"
            class="text-lg font-semibold"
            :class="clock.now > pot.potEnds_ms ? 'text-madder' : 'text-ochre'"
            data-test="pot-life"
          >
            {{
              clock.now > pot.potEnds_ms
                ? w('mix.over', { at: time(pot.potEnds_ms) })
                : `${w('mix.useBy', { at: time(pot.potEnds_ms) })}, ` +
                  w('alarm.left', { left: span(pot.potEnds_ms - clock.now) })
            }}
          </p>
        </div>
        <div v-for="n in turn + 1" :key="n">
          <h2>{{ n === 1 ? w('mix.first') : w('mix.added', { n: n - 1 }) }}</h2>
          <button
            v-for="l in pot.lines.filter(x => x.turn === n - 1)"
            :key="l.id"
            class="row w-full text-left flex items-center gap-4 min-h-12"
            :class="current?.id === l.id ? 'bg-verdigris-wash px-2' : ''"
            :disabled="n - 1 !== turn || !can"
            data-test="line"
            @click="at = l.id"
          >
            <span class="grow"
              >{{ l.name }}<span v-if="l.lot" class="caption"> · {{ l.lot }}</span></span
            ><span class="clock"
              >{{ l.poured_g === null ? '–' : l.poured_g.toFixed(1) }} /
              <strong>{{ l.wanted_g.toFixed(1) }} g</strong></span
            >
          </button>
        </div>
        <p v-if="rest && rest.factor > 1 && turn > 0" class="verdict">{{ w('mix.addedOver') }}</p>
        <p v-else-if="rest && rest.factor > 1" class="verdict verdict-stop" data-test="over">
          {{ w('mix.scaleUp', { pct: ((rest.factor - 1) * 100).toFixed(1), g: rest.total_g.toFixed(0) }) }}
          <button v-if="can" class="act act-quiet mt-2" @click="act('scale-up')">{{ w('mix.doScaleUp') }}</button>
        </p>
        <div v-if="can" class="flex flex-wrap gap-3">
          <button
            class="act"
            :class="pot.mixed_at ? 'act-quiet' : ''"
            :disabled="lines.some(l => l.poured_g === null)"
            @click="act('mixed')"
          >
            {{ w(pot.mixed_at ? 'mix.mixedAgain' : 'mix.mixed') }}
          </button>
          <button v-if="pot.mixed_at" class="act act-quiet" @click="act('close')">{{ w('mix.empty') }}</button>
        </div>
        <form
          v-if="can && pot.mixed_at"
          class="flex flex-wrap items-end gap-3"
          @submit.prevent="act('left', { left_g: left, place })"
        >
          <label
            >{{ w('mix.leftNow') }}
            <input v-model.number="left" type="number" min="0" step="any" class="field !w-28" /></label
          ><TextField v-model="place" :label="w('mix.place')" /><button class="act act-quiet">
            {{ w('mix.keepIt') }}
          </button>
          <span v-if="pot.piece" class="caption basis-full">{{ w('mix.keepWhy') }}</span>
        </form>
        <p v-for="c in cautions" :key="c" class="verdict" data-test="caution">{{ cautionText(c) }}</p>
      </section>
      <section class="grid gap-5 content-start min-w-0">
        <PourPanel
          v-if="can && current"
          :key="current.id"
          :line="current"
          :lots="pot.lots.filter(l => l.product_id === current!.product_id)"
          :smallest-g="pot.smallest_g"
          @poured="(poured_g, lotId) => act('pour', { lineId: current!.id, lotId, poured_g })"
        />
        <template v-if="pot.recipe">
          <SwatchStrip
            :colours="[
              { name: w('colour.foretold'), spectrum: pot.recipe.predicted },
              ...(lastTry ? [{ name: w('mix.tryN', { n: lastTry.turn + 1 }), spectrum: lastTry.spectrum }] : []),
              { name: w('colour.target'), spectrum: pot.recipe.target_spectrum },
            ]"
          />
          <div v-if="pot.tries.length" data-test="tries">
            <p v-for="x in pot.tries" :key="x.turn" class="row flex gap-4">
              <span class="grow">{{ w('mix.tryN', { n: x.turn + 1 }) }}</span><span class="caption"
                >{{ w('mix.foretold') }} {{ x.foretold?.toFixed(1) }}</span
              ><strong class="clock">{{ x.reached.toFixed(1) }}</strong
              ><span>{{ w(grade(x.reached)) }}</span>
            </p>
            <TryChart v-if="pot.tries.length > 1" :tries="pot.tries" />
          </div>
          <div v-if="advice" class="verdict" :class="advice.newPot ? 'verdict-stop' : ''" data-test="advice">
            {{
              advice.newPot
                ? w('mix.newPot', { before: advice.before.toFixed(1), after: advice.after.toFixed(1) })
                : advice.add.length
                  ? w('mix.addThese', {
                      what: advice.add.map(a => `${a.g.toFixed(1)} g ${a.name}`).join(', '),
                      after: advice.after.toFixed(1),
                    })
                  : w('mix.good', { before: advice.before.toFixed(1) })
            }}
            {{ w('mix.takes', { pct: (advice.takes * 100).toFixed(0) }) }}
          </div>
          <div v-if="can && pot.mixed_at && !tried">
            <h2 class="mb-2">{{ w('mix.readBand') }}</h2>
            <MeasureForm
              :piece-id="pot.piece_id"
              role="band"
              :name="`${pot.name}, ${w('mix.tryN', { n: turn + 1 })}`"
              :clear-coat="pot.recipe.clear_coat"
              :species="pot.recipe.species"
              @read="readingId => act('try', { readingId })"
            />
          </div>
          <form
            v-else-if="can && tried"
            class="flex flex-wrap items-end gap-3"
            @submit.prevent="act('correct', { left_g: left })"
          >
            <label
              >{{ w('mix.leftNow') }}
              <input v-model.number="left" type="number" min="0" step="any" class="field !w-28" /></label
            ><button class="act">{{ w('mix.correct') }}</button>
          </form>
        </template>
      </section>
    </div>
    <p v-else-if="!failed">{{ w('loading') }}</p>
  </div>
</template>
