<script setup lang="ts">
/** What evaporated by month, against what the house may; masks, waste, limits. */
import { quantitySaid } from '#core/store'

const { data: page, failed } = useLive('GET /api/store/voc', topic => topic === 'store')
const { data: breath, load } = useLive('GET /api/breath', topic => ['store', 'shop', 'air'].includes(topic))
const session = useSession()
const clock = useClock()
const most_kg = computed(() => (breath.value?.vocYear_g == null ? null : breath.value.vocYear_g / 1000))
const year = computed(() => new Date(clock.now).getUTCFullYear().toString())
const soFar_kg = computed(
  () =>
    (page.value?.months ?? []).filter(m => m.month.startsWith(year.value)).reduce((sum, m) => sum + m.voc_g, 0) / 1000,
)
const drawn = computed(() => {
  const shown = (page.value?.months ?? []).slice(0, 12).reverse()
  return {
    ...{ says: shown.map(m => month(m.month)), unit: w('breath.vocAxis') },
    series: [{ label: w('breath.chart'), values: shown.map(m => m.voc_g / 1000) }],
  }
})
const setting = ref(false)
const kg = ref<number | null>(null)
async function set() {
  if (!(await send('PUT /api/breath/voc', { body: { kg: kg.value } }))) return
  setting.value = false
  await load()
}
const month = (m: string) =>
  new Date(`${m}-01T12:00:00Z`).toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })
</script>

<template>
  <PageState v-if="!page" :failed="failed" />
  <div v-else class="grid xl:grid-cols-2 gap-10">
    <section class="min-w-0">
      <h1 class="flex flex-wrap items-baseline gap-x-4">
        <span class="grow">{{ w('store.voc') }}</span>
        <a class="underline text-base font-normal min-h-11 inline-flex items-center" href="/api/store/voc-list">CSV</a>
      </h1>
      <p v-if="!page.months.length" class="row">{{ w('store.noVoc') }}</p>
      <ClientOnly v-else-if="page.months.length > 1"><RecordChart v-bind="drawn" /></ClientOnly>
      <p v-if="breath && !setting" class="row flex flex-wrap items-center gap-x-4" data-test="voc-year">
        <strong v-if="most_kg !== null && soFar_kg > most_kg" class="grow text-madder">{{
          w('breath.vocOver', { kg: soFar_kg.toFixed(1), most: most_kg })
        }}</strong>
        <span v-else class="grow">{{
          most_kg === null
            ? w('breath.vocNone')
            : w('breath.vocSoFar', {
                kg: soFar_kg.toFixed(1),
                most: most_kg,
                percent: Math.round((100 * soFar_kg) / most_kg),
              })
        }}</span>
        <button v-if="session.may('shop')" class="act act-quiet" @click="((kg = most_kg), (setting = true))">
          {{ w('breath.set') }}
        </button>
      </p>
      <form v-if="setting" class="flex flex-wrap items-end gap-3 my-2" @submit.prevent="set">
        <NumberField v-model="kg" :label="w('breath.vocYear')" :min="0.1" :step="0.1" />
        <button class="act">{{ w('breath.set') }}</button>
        <button type="button" class="act act-quiet" @click="setting = false">{{ w('cancel') }}</button>
      </form>
      <FoldOut v-for="(m, i) in page.months" :key="m.month" class="row" :open="i === 0" data-test="month">
        <template #title
          ><span class="flex gap-4"
            ><strong class="grow">{{ month(m.month) }}</strong
            ><strong class="clock">{{ w('store.vocOf', { kg: (m.voc_g / 1000).toFixed(2) }) }}</strong></span
          ></template
        >
        <p v-for="a in m.air" :key="a.name" class="flex gap-4">
          <span class="grow">{{ a.name }}</span><span class="caption clock">{{ quantitySaid(a.ml, 'ml') }}</span
          ><span class="clock w-24 text-right">{{ quantitySaid(a.voc_g, 'g') }}</span>
        </p>
        <h3 v-if="m.waste.length" class="mt-2">{{ w('store.waste') }}</h3>
        <p v-for="x in m.waste" :key="x.name" class="flex gap-4">
          <span class="grow">{{ x.name }} · {{ x.class }}</span
          ><span class="clock">{{ quantitySaid(x.ml, 'ml') }}</span>
        </p>
      </FoldOut>
      <WhyNote :label="w('plan.whence')">{{ w('store.vocWhy') }}</WhyNote>
    </section>
    <div v-if="breath" class="grid gap-8 content-start">
      <BreathMasks :masks="breath.masks" @changed="load" />
      <BreathWaste :waiting="breath.waiting" :receipts="breath.receipts" @changed="load" />
      <BreathLimits :solvents="breath.solvents" @changed="load" />
    </div>
  </div>
</template>
