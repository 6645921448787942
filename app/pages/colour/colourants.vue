<script setup lang="ts">
import { materialOf } from '#core/materials'
import { SPECIES } from '#core/wood'

type Learnt = AnswerOf<'POST /api/colourants/learn'>
const { amount } = useFormat()
const session = useSession()
const { data: page, load } = useLive('GET /api/colour', topic => topic !== 'air')
const { data: store } = useLive('GET /api/store', topic => topic === 'store')
const HUES = ['#8a5a0c', '#a5322c', '#4a6178', '#4c6a33', '#1d6a62', '#7a4a7a', '#505854', '#1c211f']
const classes = computed(() => [...new Set((page.value?.colourants ?? []).map(c => c.class))])
const shown = ref('')
const species = ref('oak')
watchEffect(() => {
  const taught = page.value?.taught[0]
  if (shown.value || !classes.value[0]) return
  shown.value = taught?.class ?? classes.value[0]
  if (taught) species.value = taught.species
})
const lines = computed(() => (page.value?.colourants ?? []).filter(c => c.class === shown.value))
const curves = computed(() =>
  lines.value.map((c, i) => ({ name: c.name, values: c.spectrum, colour: HUES[i % HUES.length]! })),
)
const record = ref('')
const without = ref<number[]>([])
const learnt = shallowRef<Learnt | null>(null)
async function learn(apply: boolean) {
  const done = await send('POST /api/colourants/learn', {
    body: {
      class: shown.value as BodyOf<'POST /api/colourants/learn'>['class'],
      species: species.value,
      record: record.value,
      without: without.value,
      apply,
    },
  })
  learnt.value = done
  if (done && !record.value) record.value = done.record
  if (apply) await load()
}
watch([shown, species], () => {
  learnt.value = null
  record.value = ''
  without.value = []
})
const compare = computed(() =>
  (learnt.value?.colourants ?? []).flatMap((c, i) => [
    { name: c.name, values: c.after, colour: HUES[i % HUES.length]! },
    { name: '', values: c.before, colour: HUES[i % HUES.length]!, dashed: true },
  ]),
)
const {
  draft: make,
  errors,
  busy,
  submit,
} = useForm('POST /api/colourants', () => ({
  productId: null as number | null,
  lies: 'wood' as const,
  most_pct: 100,
  woodId: null as number | null,
  bandId: null as number | null,
  pct: 20,
  coats: 1,
  wipe: 'normal' as const,
}))
async function add() {
  if (await submit({})) await load()
}
const toggle = (id: number) => {
  without.value = without.value.includes(id) ? without.value.filter(x => x !== id) : [...without.value, id]
  void learn(false)
}
</script>

<template>
  <div>
    <ColourNav />
    <div class="grid lg:grid-cols-[1fr_24rem] gap-10">
      <section class="min-w-0">
        <div class="flex flex-wrap items-center gap-4">
          <h1>{{ w('colour.nav.colourants') }}</h1>
          <ChoiceField
            v-model="shown"
            :label="w('colour.kind')"
            :options="optionsOf(classes, k => materialOf(k).name)"
          />
        </div>
        <p v-if="page && !page.colourants.length" class="row">{{ w('colour.noColourant') }}</p>
        <div v-for="c in lines" :key="c.product_id" class="row flex flex-wrap gap-x-4">
          <strong class="grow">{{ c.name }}</strong><span class="clock"
            >{{ w('colour.upTo', { pct: c.most_pct }) }} · {{ amount(c.left_ml) }}</span
          ><span v-for="lesson in c.onWood" :key="lesson.species" class="caption basis-full">{{
            w('colour.learntOn', {
              wood: SPECIES.find(s => s.slug === lesson.species)?.name ?? lesson.species,
              n: lesson.bands,
              before: lesson.error_before.toFixed(1),
              after: lesson.error_after.toFixed(1),
            })
          }}</span>
        </div>
        <SpectrumChart v-if="lines.length" class="mt-3" absorbs :curves="curves" :label="w('colour.absorbs')" />
        <template v-if="session.may('store') && lines.length">
          <h2 class="mt-6">{{ w('colour.learn') }}</h2>
          <p class="caption">{{ w('colour.learnWhy') }}</p>
          <form class="flex flex-wrap items-end gap-3 mt-2" @submit.prevent="learn(false)">
            <FindField v-model="species" :label="w('intake.species')" :options="namedOptions(SPECIES)" />
            <FindField
              v-if="learnt && learnt.groups.length > 1"
              v-model="record"
              :label="w('colour.record')"
              :options="learnt.groups.map(g => ({ value: g.key, label: `${g.key} (${g.bands})` }))"
              @update:model-value="learn(false)"
            />
            <button class="act act-quiet">{{ w('colour.tryLearning') }}</button>
          </form>
          <div v-if="learnt" class="mt-3 grid gap-3" data-test="learnt">
            <p>
              {{ w('colour.learntError', { n: learnt.bands.length - without.length }) }}
              <strong class="clock">{{ learnt.before.toFixed(2) }} → {{ learnt.after.toFixed(2) }}</strong>
            </p>
            <label v-for="b in learnt.bands" :key="b.id" class="row flex items-center gap-3 min-h-11"
              ><input type="checkbox" class="size-5" :checked="!without.includes(b.id)" @change="toggle(b.id)" /><span
                class="grow"
                >{{ b.piece }}: {{ b.title
                }}<strong v-if="b.outlier" class="text-madder block">{{ w('colour.outlier') }}</strong></span
              ><span class="clock">{{ b.before.toFixed(1) }} → {{ b.after.toFixed(1) }}</span></label
            >
            <SpectrumChart absorbs :curves="compare" :label="w('colour.learn')" />
            <button class="act justify-self-start" @click="learn(true)">{{ w('colour.keepLearnt') }}</button>
          </div>
        </template>
      </section>
      <form v-if="session.may('store') && page" class="grid gap-3 content-start" @submit.prevent="add">
        <h2>{{ w('colour.newColourant') }}</h2>
        <p class="caption">{{ w('colour.newColourantWhy') }}</p>
        <FindField
          v-model="make.productId"
          :label="w('store.product')"
          :options="namedOptions(store?.products ?? [])"
          :error="errors.productId"
        />
        <ChoiceField
          v-model="make.lies"
          :label="w('colour.lies')"
          :options="[
            { value: 'wood', label: w('colour.liesWood') },
            { value: 'film', label: w('colour.liesFilm') },
          ]"
        />
        <FindField
          v-model="make.woodId"
          :label="w('colour.woodBelow')"
          :options="namedOptions(page.readings.filter(x => x.role === 'wood'))"
          :error="errors.woodId"
        />
        <FindField
          v-model="make.bandId"
          :label="w('colour.itsBand')"
          :options="namedOptions(page.readings.filter(x => x.role === 'band'))"
          :error="errors.bandId"
        />
        <div class="grid grid-cols-2 gap-3">
          <NumberField v-model="make.pct" :label="w('colour.strength')" step="any" :error="errors.pct" />
          <NumberField v-model="make.most_pct" :label="w('colour.most')" step="any" :error="errors.most_pct" />
        </div>
        <button class="act" :disabled="busy">
          {{ w('colour.addColourant') }}
        </button>
      </form>
    </div>
  </div>
</template>
