<script setup lang="ts">
import type { Light } from '#core/colour'
import { materialOf } from '#core/materials'
import { SPECIES } from '#core/wood'

const route = useRoute()
const light = useLight()
const session = useSession()
const { dayTime, amount } = useFormat()
const find = ref(String(route.query.find ?? ''))
const species = ref('')
const near = ref(0)
const asked = refDebounced(find, 250)
const { data: recipes, load } = useLive(
  'GET /api/recipes',
  topic => topic === 'piece' || topic === 'store',
  () => ({
    query: { find: asked.value, species: species.value || undefined, target: near.value || undefined },
  }),
)
const { data: page } = useLive('GET /api/colour', topic => topic === 'store')
const targets = computed(() => (page.value?.readings ?? []).filter(r => r.role === 'target'))
const open = ref(Number(route.query.id) || 0)
const total = ref(200)
/** What the plan takes, in grams, is what a pot is begun with. */
watch(
  () => {
    const r = recipes.value?.find(x => x.id === open.value)
    return r?.planned_ml ? `${r.id} ${Math.ceil(r.planned_ml * materialOf(r.class).density)}` : ''
  },
  planned => {
    if (planned) total.value = Number(planned.split(' ')[1])
  },
)
/** Colourants of which the store has less than this pot takes. */
const short = (r: RecipeLine) =>
  r.shares
    .map(s => ({ name: s.name, left: s.left_ml, wanted: (total.value * s.pct) / 100 / materialOf(r.class).density }))
    .filter(s => s.wanted > s.left)
const pieceId = computed(() => Number(route.query.piece) || null)
async function mix(r: RecipeLine) {
  const done = await send('POST /api/batches', {
    body: {
      kind: 'recipe',
      recipeId: r.id,
      total_g: total.value,
      pieceId: pieceId.value ?? r.piece_id,
      smallest_g: 0.1,
    },
  })
  if (done) await navigateTo(`/mixing/${done.id}`)
}
async function again(r: RecipeLine) {
  const done = await send('POST /api/recipes', {
    body: {
      name: r.name,
      pieceId: pieceId.value,
      woodId: r.wood_id,
      sapwoodId: r.sapwood_id,
      targetId: r.target_id,
      shares: r.shares.map(({ id, pct }) => ({ id, pct })),
      coats: r.coats,
      wipe: r.wipe,
      clearCoat: r.clear_coat,
      lights: r.lights.split(',') as Light[],
      bleached: Boolean(r.bleached),
      fromId: r.id,
    },
  })
  if (done) {
    open.value = done.id
    await load()
  }
}
</script>

<template>
  <div>
    <ColourNav />
    <h1 class="sr-only">{{ w('colour.nav.recipes') }}</h1>
    <div class="grid sm:grid-cols-[1fr_14rem_18rem] gap-4 items-end">
      <TextField v-model="find" :label="w('colour.findRecipe')" />
      <FindField
        v-model="species"
        :label="w('intake.species')"
        :options="[{ value: '', label: w('colour.anyWood') }, ...namedOptions(SPECIES)]"
      />
      <FindField
        v-model="near"
        :label="w('colour.nearTo')"
        :options="[{ value: 0, label: w('colour.newest') }, ...namedOptions(targets)]"
      />
    </div>
    <div class="my-4"><LightChoice /></div>
    <p v-if="recipes && !recipes.length" class="row">
      {{ find || species ? w('colour.noneFound') : w('colour.noRecipe') }}
    </p>
    <article v-for="r in recipes ?? []" :key="r.id" class="row" data-test="recipe-line">
      <button
        class="w-full text-left flex flex-wrap items-center gap-x-4 min-h-12"
        :aria-expanded="open === r.id"
        @click="open = open === r.id ? 0 : r.id"
      >
        <span class="flex bg-[#777777] p-1.5" aria-hidden="true"
          ><span class="w-9 h-10" :style="{ background: swatch(r.predicted, light) }" /><span
            class="w-9 h-10"
            :style="{ background: swatch(r.target_spectrum, light) }"
        /></span>
        <span class="grow"
          ><strong>{{ r.id }} {{ r.name }}</strong
          ><span class="caption block">{{
            [r.piece, r.client, SPECIES.find(s => s.slug === r.species)?.name, materialOf(r.class).name]
              .filter(Boolean)
              .join(' · ')
          }}</span></span
        >
        <span v-if="r.away !== null" class="clock">{{ w('colour.away', { de: r.away.toFixed(1) }) }}</span>
        <span class="clock"
          >{{ r.worst.toFixed(1) }} <span class="caption">{{ w(grade(r.worst)) }}</span></span
        >
      </button>
      <div v-if="open === r.id" class="grid gap-4 mt-3">
        <SwatchStrip
          :colours="[
            { name: w('colour.foretold'), spectrum: r.predicted },
            { name: w('colour.target'), spectrum: r.target_spectrum, note: r.target },
          ]"
        />
        <BreaksVerdict :under="r.under" />
        <RecipeView :shares="r.shares" :under="r.under" />
        <p class="caption">
          {{ w('colour.madeBy', { by: r.by_name, at: dayTime(r.at) }) }} ·
          {{ w('colour.coatsWiped', { n: r.coats, wipe: w(`colour.wipes.${r.wipe}`) }) }} ·
          {{ r.clear_coat ? w(`colour.coats.${r.clear_coat}`) : w('colour.noFinish')
          }}<template v-if="r.bleached"> · {{ w('colour.bleachFirst') }}</template
          ><template v-if="r.from_id"> · {{ w('colour.sameAs', { id: r.from_id }) }}</template>
        </p>
        <p v-for="s in short(r)" :key="s.name" class="verdict" data-test="short">
          {{ w('colour.short', { name: s.name, left: amount(s.left), wanted: amount(s.wanted) }) }}
        </p>
        <form class="flex flex-wrap items-end gap-3" @submit.prevent="mix(r)">
          <label
            >{{ w(r.planned_ml ? 'mix.totalPlanned' : 'mix.totalG') }}
            <input v-model.number="total" type="number" min="1" step="any" class="field !w-32"
          /></label>
          <button class="act">{{ w('mix.begin') }}</button>
          <button v-if="pieceId && r.piece_id !== pieceId" type="button" class="act act-quiet" @click="again(r)">
            {{ w('colour.useHere', { id: pieceId }) }}
          </button>
        </form>
      </div>
    </article>
    <ReadIn v-if="session.may('mix')" class="mt-6" list="recipes" @taken="load" />
  </div>
</template>
