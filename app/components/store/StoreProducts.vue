<script setup lang="ts">
/** Products by class with their cans, the age of each, label and dry times; a can that comes in. */
import { nameOfClass, quantitySaid } from '#core/store'

type Product = AnswerOf<'GET /api/store'>['products'][number]
const props = defineProps<{ products: readonly Product[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { money, day } = useFormat()
const changing = ref<Product | null>(null)
const find = ref('')
const shown = computed(() => {
  const part = find.value.trim().toLowerCase()
  return props.products.filter(
    p => !part || [p.name, nameOfClass(p.class), ...p.lots.map(l => l.code)].join(' ').toLowerCase().includes(part),
  )
})
const labelSays = (figures: object) => {
  const n = Object.keys(figures).length
  return n ? w('label.some', { n }) : w('label.none')
}
const driesSays = (d: NonNullable<Product['dries']>) =>
  w('store.driesLine', { factor: d.likely.toFixed(2), n: d.seen.product, others: d.seen.class })
const isMaterial = (p: Product) => p.unit === 'ml'
async function addSheet(id: number, event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const body = new FormData()
  body.append('file', file)
  input.value = ''
  if (await send('POST /api/products/:id/sheet', { id, body })) emit('changed')
}
function saved() {
  changing.value = null
  emit('changed')
}
</script>

<template>
  <div class="grid lg:grid-cols-[1fr_22rem] gap-10">
    <section>
      <h1>{{ w('store.title') }}</h1>
      <label v-if="products.length > 6" class="block max-w-sm mb-3"
        >{{ w('store.find') }} <input v-model="find" class="field" type="search" maxlength="60"
      /></label>
      <div
        v-for="p in shown"
        :key="p.id"
        class="row grid sm:grid-cols-[1fr_16rem_8rem] gap-x-4 gap-y-1"
        data-test="product"
      >
        <span
          ><strong>{{ p.name }}</strong
          ><span class="caption block">{{
            [nameOfClass(p.class), p.grit, p.supplier].filter(Boolean).join(' · ')
          }}</span>
          <button v-if="session.may('store')" class="underline min-h-11" @click="changing = p">
            {{ w('change') }}
          </button>
          <a
            v-if="p.sheet_at"
            class="underline min-h-11 inline-flex items-center ml-4"
            :href="`/api/products/${p.id}/sheet`"
            target="_blank"
            >{{ w('store.sheet', { day: day(p.sheet_at) }) }}</a
          >
          <label
            v-if="session.may('store') && isMaterial(p)"
            class="underline min-h-11 inline-flex items-center ml-4 cursor-pointer"
            >{{ w(p.sheet_at ? 'store.sheetAnew' : 'store.sheetAdd')
            }}<input type="file" class="sr-only" accept="application/pdf" @change="addSheet(p.id, $event)" /></label
        ></span>
        <span
          ><NuxtLink
            v-for="l in p.lots"
            :key="l.id"
            :to="`/lots/${l.id}`"
            class="flex flex-wrap items-baseline gap-x-2 min-h-11 content-center"
            data-test="lot"
            ><span>{{ l.code }}</span
            ><strong class="clock" :class="l.left_amount <= 0 ? 'text-madder' : ''">{{
              quantitySaid(l.left_amount, p.unit)
            }}</strong
            ><span v-if="l.age !== 'good'" :class="l.age === 'over' ? 'text-madder' : 'text-ochre'">{{
              w(`store.age.${l.age}`, { day: day(l.until!) })
            }}</span></NuxtLink
          ><span v-if="!p.lots.length" class="caption">{{ w('store.noLot') }}</span></span
        >
        <span v-if="session.may('see-prices')" class="clock sm:text-right"
          >{{ money(p.price_minor) }}<span class="caption"> / {{ w(`store.per.${p.unit}`) }}</span></span
        >
        <FoldOut v-if="p.dries" class="sm:col-span-3" :title="driesSays(p.dries)">
          <DryCurve
            :product-id="p.id"
            :product-class="p.class"
            :dries="p.dries"
            :can="session.may('store')"
            @changed="emit('changed')"
          />
        </FoldOut>
        <FoldOut v-if="p.label && isMaterial(p)" class="sm:col-span-3" :title="labelSays(p.label.figures)">
          <LabelForm
            :product-id="p.id"
            :product-class="p.class"
            :label="p.label"
            :can="session.may('store')"
            @saved="emit('changed')"
          />
        </FoldOut>
      </div>
      <p v-if="!products.length" class="row">{{ w('store.none') }}</p>
      <p v-else-if="!shown.length" class="row">{{ w('store.notFound') }}</p>
    </section>
    <aside class="grid gap-6 content-start">
      <LotForm :products="products" @added="emit('changed')" />
      <ProductForm v-if="session.may('store')" @saved="emit('changed')" />
      <template v-if="session.may('store')">
        <ReadIn list="products" @taken="emit('changed')" />
        <ReadIn list="lots" @taken="emit('changed')" />
      </template>
    </aside>
    <DialogBox v-if="changing" :title="changing.name" @close="changing = null">
      <ProductForm :product="changing" @saved="saved" />
    </DialogBox>
  </div>
</template>
