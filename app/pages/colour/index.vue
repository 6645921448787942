<script setup lang="ts">
import {
  CLEAR_COAT_SLUGS,
  isClearCoat,
  judgeRecipe,
  type Light,
  LIGHTS,
  metamerismIndex,
  PASSES,
  readOf,
  type Recipe,
  type ClearCoat,
  type SearchQuestion,
  searchQuestion,
  type Wipe,
  WIPES,
} from '#core/colour'
import { materialOf } from '#core/materials'

const route = useRoute()
const pieceId = computed(() => Number(route.query.piece) || null)
const { data: page, failed: unread } = useLive(
  'GET /api/colour',
  topic => topic !== 'air',
  () => ({ query: { piece: pieceId.value ?? undefined } }),
)
const light = useLight()
const pick = reactive({
  woodId: 0,
  sapwoodId: 0,
  targetId: 0,
  clearCoat: 'waterborne-polyurethane' as ClearCoat | '',
  coats: 1,
  wipe: 'normal' as Wipe,
  atMost: 3 as 1 | 2 | 3 | 4,
  bleached: false,
})
const lights = ref<Light[]>(['d65', 'a', 'led'])
const off = ref<number[]>([])
const of = (role: string) => (page.value?.readings ?? []).filter(r => r.role === role)
/** Readings of a role as options, each with its piece and what it is. */
const readingOptions = (role: string, kind?: string) =>
  of(role).map(r => ({ value: r.id, label: [r.name, r.piece, kind].filter(Boolean).join(' · ') }))
const reading = (id: number) => page.value?.readings.find(r => r.id === id) ?? null
const mine = (list: ReadingLine[]) =>
  (list.find(r => r.piece_id === pieceId.value && pieceId.value) ?? list[0])?.id ?? 0
watchEffect(() => {
  if (!page.value) return
  if (!reading(pick.targetId)) pick.targetId = mine(of('target'))
  if (!reading(pick.woodId)) pick.woodId = mine(of('wood').filter(r => r.zone === 'heartwood'))
})
const inStore = computed(() => (page.value?.colourants ?? []).filter(k => k.left_ml > 0))
/** The piece's plan says the finish and how many coats of colour. */
let prefilled = 0
watchEffect(() => {
  const plan = page.value?.plan
  if (!plan || prefilled === pieceId.value) return
  prefilled = pieceId.value ?? 0
  if (plan.finish && isClearCoat(plan.finish)) pick.clearCoat = plan.finish
  pick.coats = plan.colours[0]?.coats ?? 1
  lights.value = [...new Set<Light>(['d65', page.value!.lights.room ?? 'a', page.value!.lights.shop])]
  const planned = plan.colours[0]?.class
  if (planned && inStore.value.some(k => k.class === planned))
    off.value = inStore.value.filter(k => k.class !== planned).map(k => k.product_id)
})
const wood = computed(() => reading(pick.woodId))
const target = computed(() => reading(pick.targetId))
const classes = computed(() => [...new Set(inStore.value.map(k => k.class))])

const question = computed((): SearchQuestion | null => {
  if (!wood.value || !target.value) return null
  const { bleached, atMost, coats, wipe } = pick
  return searchQuestion({
    woods: [pick.woodId, pick.sapwoodId].flatMap(id => reading(id) ?? []),
    target: target.value,
    colourants: colourantsOn(
      inStore.value.filter(k => !off.value.includes(k.product_id)),
      wood.value.species,
    ),
    clearCoat: pick.clearCoat || null,
    lights: lights.value,
    ...{ bleached, atMost, coats, wipe },
  })
})
const { state, chosen, reasons, failed, running, search, stop } = useRecipeSearch(() => question.value)
const name = (id: number) => page.value?.colourants.find(k => k.product_id === id)?.name ?? String(id)
const named = (r: Recipe) => r.shares.map(s => ({ ...s, name: name(s.id) })).sort((a, b) => b.pct - a.pct)
const plain = computed(() => (question.value ? readOf(question.value.substrates[0]!, question.value.surface) : null))
/** The chosen recipe under every light, also those it was not asked to match under. */
const judged = computed(() =>
  question.value && chosen.value ? judgeRecipe({ ...question.value, lights: LIGHTS }, chosen.value.shares) : null,
)
/** The light under which most differs once the leading light is made equal. */
const metameric = computed(() => {
  if (!question.value || !chosen.value) return null
  const {
    target: aim,
    lights: [from = 'd65'],
  } = question.value
  return LIGHTS.map(to => ({ from, to, mi: metamerismIndex(aim, chosen.value!.predicted[0]!, from, to) })).reduce(
    (a, b) => (b.mi > a.mi ? b : a),
  )
})
const colours = computed(() => [
  { name: w('colour.woodFinished'), spectrum: plain.value },
  ...(chosen.value && question.value?.substrates.length === 2
    ? [{ name: w('colour.onSapwood'), spectrum: chosen.value.predicted[1]! }]
    : []),
  ...(chosen.value ? [{ name: w('colour.foretold'), spectrum: chosen.value.predicted[0]! }] : []),
  { name: w('colour.target'), spectrum: question.value?.target ?? null },
])
const curves = computed(() => [
  ...(question.value ? [{ name: w('colour.target'), values: question.value.target, colour: '#a5322c' }] : []),
  ...(chosen.value
    ? [{ name: w('colour.foretold'), values: chosen.value.predicted[0]!, colour: '#1d6a62', dashed: true }]
    : []),
  ...(plain.value ? [{ name: w('colour.woodFinished'), values: plain.value, colour: '#8a5a0c' }] : []),
])
/** Light boards first, then the whole (common practice): the sapwood is matched to the heartwood. */
function sapwoodFirst() {
  Object.assign(pick, { targetId: pick.woodId, woodId: pick.sapwoodId, sapwoodId: 0 })
}
const title = ref('')
watch(
  () => target.value?.name ?? '',
  (name, before) => {
    if (!title.value || title.value === before) title.value = name
  },
  { immediate: true },
)
async function save() {
  if (!chosen.value) return
  const done = await send('POST /api/recipes', {
    body: {
      name: title.value,
      pieceId: pieceId.value,
      woodId: pick.woodId,
      sapwoodId: pick.sapwoodId || null,
      targetId: pick.targetId,
      shares: chosen.value.shares,
      coats: pick.coats,
      wipe: pick.wipe,
      clearCoat: pick.clearCoat || null,
      lights: lights.value.length ? lights.value : ['d65'],
      bleached: pick.bleached,
    },
  })
  if (done) await navigateTo(`/colour/recipes?id=${done.id}${pieceId.value ? `&piece=${pieceId.value}` : ''}`)
}
</script>

<template>
  <div>
    <ColourNav />
    <h1 class="sr-only">{{ w('colour.nav.match') }}</h1>
    <PageState v-if="!page" :failed="unread" />
    <div v-else class="grid lg:grid-cols-[20rem_1fr] gap-x-10 gap-y-6">
      <form class="grid gap-3 content-start" @submit.prevent="search">
        <FindField
          v-model="pick.targetId"
          :label="w('colour.matchTo')"
          :options="[...readingOptions('target'), ...readingOptions('wood', w('colour.toWood'))]"
        />
        <FindField v-model="pick.woodId" :label="w('colour.onWood')" :options="readingOptions('wood')" />
        <p v-if="!of('target').length || !of('wood').length" class="verdict">
          {{ w('colour.needReadings') }}
          <NuxtLink to="/colour/readings" class="underline">{{ w('colour.nav.readings') }}</NuxtLink>
        </p>
        <ChoiceField
          v-model="pick.clearCoat"
          :label="w('colour.finish')"
          :options="[
            { value: '', label: w('colour.noFinish') },
            ...optionsOf(CLEAR_COAT_SLUGS, k => w(`colour.coats.${k}`)),
          ]"
        />
        <p v-if="!pick.clearCoat" class="verdict">{{ w('colour.judgedBare') }}</p>
        <div class="grid grid-cols-3 gap-2">
          <label
            >{{ w('colour.colourCoats') }}
            <input v-model.number="pick.coats" type="number" min="1" max="10" class="field"
          /></label>
          <ChoiceField
            v-model="pick.wipe"
            :label="w('colour.wipe')"
            :options="optionsOf(WIPES, k => w(`colour.wipes.${k}`))"
          />
          <ChoiceField
            v-model="pick.atMost"
            :label="w('colour.atMost')"
            :options="optionsOf([1, 2, 3, 4], n => (n === 1 ? '1' : w('colour.upToN', { n })))"
          />
        </div>
        <fieldset>
          <legend>{{ w('colour.judgeUnder') }}</legend>
          <label v-for="l in LIGHTS" :key="l" class="flex items-center gap-2 min-h-10"
            ><input v-model="lights" type="checkbox" :value="l" class="size-5" /> {{ w(`colour.lights.${l}`)
            }}<span
              v-for="p in (['room', 'shop'] as const).filter(x => page!.lights[x] === l)"
              :key="p"
              class="caption"
              >{{ w(`colour.lightOf.${p}`) }}</span
            ></label
          >
        </fieldset>
        <FoldOut :title="w('colour.more')">
          <FindField
            v-model="pick.sapwoodId"
            :label="w('colour.sapwood')"
            :options="[{ value: 0, label: w('colour.noSapwood') }, ...namedOptions(of('wood'))]"
            class="mb-3"
          />
          <label class="flex items-center gap-2 min-h-10"
            ><input v-model="pick.bleached" type="checkbox" class="size-5" /> {{ w('colour.bleachFirst') }}</label
          >
          <fieldset v-for="k in classes" :key="k" class="mt-2">
            <legend class="caption">{{ materialOf(k).name }}</legend>
            <label
              v-for="c in inStore.filter(x => x.class === k)"
              :key="c.product_id"
              class="flex items-center gap-2 min-h-10"
              ><input
                :checked="!off.includes(c.product_id)"
                type="checkbox"
                class="size-5"
                @change="
                  off = off.includes(c.product_id) ? off.filter(x => x !== c.product_id) : [...off, c.product_id]
                "
              />
              {{ c.name }}</label
            >
          </fieldset>
        </FoldOut>
        <button v-if="!running" class="act" :disabled="!question || !question.colourants.length">
          {{ w('colour.search') }}
        </button>
        <button v-else type="button" class="act act-stop" @click="stop">{{ w('cancel') }}</button>
      </form>
      <section class="grid gap-4 content-start min-w-0">
        <LightChoice :lights="page.lights" />
        <SwatchStrip :colours="colours" tall />
        <p class="caption">
          {{
            [
              w('colour.guide'),
              target?.given || wood?.given ? w('colour.labOnly') : '',
              wood && target && wood.light_history !== target.light_history ? w('colour.historyDiffers') : '',
            ]
              .filter(Boolean)
              .join(' ')
          }}
        </p>
        <p v-if="failed" class="verdict verdict-stop">{{ failed }}</p>
        <ProgressLine
          v-if="running && state"
          :label="w('colour.searching')"
          :done="state.done / Math.max(1, state.all)"
        >
          <span class="clock">{{ w('colour.tried', { done: state.done, all: state.all }) }}</span>
        </ProgressLine>
        <template v-if="chosen">
          <div class="flex flex-wrap items-baseline gap-x-4">
            <h2 class="!text-2xl" data-test="verdict">
              <span class="clock">ΔE00 {{ chosen.worst.toFixed(1) }}:</span> {{ w(grade(chosen.worst)) }}
            </h2>
            <span
              >{{ w('colour.atWorst') }} · {{ materialOf(chosen.group).name }},
              {{ w(chosen.lies === 'wood' ? 'colour.liesWood' : 'colour.liesFilm') }}</span
            >
          </div>
          <BreaksVerdict v-if="judged" :under="judged.under" />
          <p v-if="question?.substrates.length === 2 && chosen.worst > PASSES" class="verdict">
            {{ w('colour.sapwoodFirst') }}
            <button type="button" class="underline min-h-11" @click="sapwoodFirst">
              {{ w('colour.doSapwoodFirst') }}
            </button>
          </p>
          <RecipeView :shares="named(chosen)" :under="judged?.under ?? chosen.under" :limit="chosen.atLimit" />
          <p v-if="metameric" class="caption" data-test="metamerism">
            {{
              w('colour.metamerism', {
                from: w(`colour.lights.${metameric.from}`),
                to: w(`colour.lights.${metameric.to}`),
                mi: metameric.mi.toFixed(1),
              })
            }}
          </p>
          <WhyNoBetter :reasons="reasons" :bleached="pick.bleached" :name-of="name" />
          <FoldOut v-if="state && state.best.length > 1" open :title="w('colour.others')">
            <button
              v-for="r in state.best"
              :key="r.group + r.shares.length"
              type="button"
              class="row w-full text-left grid grid-cols-[auto_1fr_auto] gap-x-4 items-center min-h-12"
              :class="r === chosen ? 'font-semibold' : ''"
              :aria-pressed="r === chosen"
              @click="chosen = r"
            >
              <span
                class="size-8 shrink-0"
                :style="{ background: swatch(r.predicted[0]!, light) }"
                aria-hidden="true"
              /><span>{{
                named(r)
                  .map(s => `${s.name} ${s.pct.toFixed(1)} %`)
                  .join(' · ')
              }}</span
              ><span class="clock">{{ r.worst.toFixed(1) }} {{ w(grade(r.worst)) }}</span>
            </button>
          </FoldOut>
          <form class="flex flex-wrap items-end gap-3" @submit.prevent="save">
            <TextField v-model="title" :label="w('colour.recipeName')" required class="grow" /><button
              class="act"
              :disabled="running"
            >
              {{ w('colour.keep') }}
            </button>
          </form>
        </template>
        <SpectrumChart v-if="curves.length" :curves="curves" :label="w('colour.curves')" />
      </section>
    </div>
  </div>
</template>
