<script setup lang="ts">
import { MATERIALS } from '#core/materials'

const session = useSession()
const { amount, money, day } = useFormat()
const { data: store, load, failed } = useLive('GET /api/store', topic => topic !== 'air')
const product = useForm('POST /api/products', () => ({ name: '', class: MATERIALS[0]!.slug, priceMinor: 30_000 }))
const lot = useForm('POST /api/lots', () => ({
  productId: store.value?.products[0]?.id ?? null,
  code: '',
  amountMl: 1000,
}))
watchEffect(() => {
  lot.draft.value.productId ??= store.value?.products[0]?.id ?? null
})
/** Money is typed in whole units and kept in hundredths; liquid is typed in litres and kept in ml. */
const scaled = (by: number, get: () => number | null, set: (v: number | null) => void) =>
  computed({
    get: () => (get() === null ? null : get()! / by),
    set: v => set(v === null ? null : Math.round(v * by)),
  })
const price = scaled(
  100,
  () => product.draft.value.priceMinor,
  v => (product.draft.value.priceMinor = v),
)
const litres = scaled(
  1000,
  () => lot.draft.value.amountMl,
  v => (lot.draft.value.amountMl = v),
)
const name = (slug: string) => MATERIALS.find(m => m.slug === slug)?.name ?? slug
async function addProduct() {
  if (await product.submit({})) product.reset()
  await load()
}
async function addLot() {
  if (await lot.submit({})) lot.reset()
  await load()
}
const labelSays = (figures: object) => {
  const n = Object.keys(figures).length
  return n ? w('label.some', { n }) : w('label.none')
}
const driesSays = (d: NonNullable<NonNullable<typeof store.value>['products'][number]['dries']>) =>
  w('store.driesLine', { factor: d.likely.toFixed(2), n: d.seen.product, others: d.seen.class })
const short = computed(() => (store.value?.needs ?? []).filter(n => n.short_ml > 0))
</script>

<template>
  <div v-if="store" class="grid lg:grid-cols-[1fr_24rem] gap-10">
    <section>
      <h1>{{ w('store.title') }}</h1>
      <div
        v-for="p in store.products"
        :key="p.id"
        class="row grid sm:grid-cols-[1fr_14rem_8rem] gap-x-4 gap-y-1"
        data-test="product"
      >
        <span
          ><strong>{{ p.name }}</strong
          ><span class="caption block">{{ name(p.class) }}</span></span
        >
        <span class="clock"
          ><span v-for="l in p.lots" :key="l.id" class="block"
            >{{ l.code }}: <strong :class="l.left_ml <= 0 ? 'text-madder' : ''">{{ amount(l.left_ml) }}</strong>{{
              ' '
            }}
            <span class="caption">{{ day(l.received_on) }}</span></span
          ><span v-if="!p.lots.length" class="caption">{{ w('store.noLot') }}</span></span
        >
        <span v-if="session.may('see-prices')" class="clock sm:text-right"
          >{{ money(p.price_minor) }}<span class="caption"> / L</span></span
        >
        <FoldOut v-if="p.dries" class="sm:col-span-3" :title="driesSays(p.dries)">
          <DryCurve
            :product-id="p.id"
            :product-class="p.class"
            :dries="p.dries"
            :can="session.may('store')"
            @changed="load"
          />
        </FoldOut>
        <FoldOut v-if="p.label" class="sm:col-span-3" :title="labelSays(p.label.figures)">
          <LabelForm
            :product-id="p.id"
            :product-class="p.class"
            :label="p.label"
            :can="session.may('store')"
            @saved="load"
          />
        </FoldOut>
      </div>
      <p v-if="!store.products.length" class="row">{{ w('store.none') }}</p>
    </section>
    <aside class="grid gap-6 content-start">
      <section>
        <h2>{{ w('store.needs') }}</h2>
        <p v-if="!store.needs.length" class="row">{{ w('store.noNeeds') }}</p>
        <div v-for="n in store.needs" :key="n.class" class="row flex gap-4">
          <span class="grow"
            >{{ name(n.class)
            }}<strong v-if="n.short_ml > 0" class="block text-madder">{{
              w('store.short', { ml: amount(n.short_ml) })
            }}</strong></span
          ><span class="clock text-right"
            >{{ amount(n.need_ml)
            }}<span class="caption block">{{ w('store.of', { ml: amount(n.left_ml) }) }}</span></span
          >
        </div>
      </section>
      <form class="grid gap-3" @submit.prevent="addLot">
        <h2>{{ w('store.addLot') }}</h2>
        <FindField
          v-model="lot.draft.value.productId"
          :label="w('store.product')"
          :options="namedOptions(store.products)"
          :error="lot.errors.value.productId"
        />
        <TextField v-model="lot.draft.value.code" :label="w('store.code')" :error="lot.errors.value.code" />
        <NumberField
          v-model="litres"
          :label="w('store.litres')"
          step="any"
          :min="0"
          :error="lot.errors.value.amountMl"
        />
        <button class="act" :disabled="!store.products.length || lot.busy.value">{{ w('store.addLot') }}</button>
      </form>
      <form v-if="session.may('store')" class="grid gap-3" @submit.prevent="addProduct">
        <h2>{{ w('store.addProduct') }}</h2>
        <TextField v-model="product.draft.value.name" :label="w('store.name')" :error="product.errors.value.name" />
        <FindField
          v-model="product.draft.value.class"
          :label="w('store.class')"
          :options="namedOptions(MATERIALS)"
          :error="product.errors.value.class"
        />
        <NumberField
          v-model="price"
          :label="w('store.price')"
          step="any"
          :min="0"
          :error="product.errors.value.priceMinor"
        />
        <button class="act" :disabled="product.busy.value">{{ w('store.addProduct') }}</button>
      </form>
      <p v-if="short.length" class="caption">{{ w('store.shortWhy') }}</p>
    </aside>
  </div>
  <PageState v-else :failed="failed" />
</template>
