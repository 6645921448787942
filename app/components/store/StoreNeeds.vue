<script setup lang="ts">
/** What open plans want by day, what is short when, and what to buy of whom. */
import { quantitySaid } from '#core/store'

const session = useSession()
const { day, money } = useFormat()
const { data: page, failed, load } = useLive('GET /api/store/needs', topic => topic !== 'air')
const suppliers = computed(() => [...new Set((page.value?.buy ?? []).map(b => b.supplier))])
const of = (supplier: string) => (page.value?.buy ?? []).filter(b => b.supplier === supplier)
const sizesSaid = (b: NonNullable<typeof page.value>['buy'][number]) =>
  b.containers.length
    ? b.containers.map(c => `${c.n} × ${quantitySaid(c.size, b.unit)}`).join(' + ')
    : quantitySaid(Math.ceil(b.total), b.unit)
const name = (b: { name: string; grit: string }) =>
  b.grit && !b.name.includes(b.grit) ? `${b.name}, ${b.grit}` : b.name
const mailTo = (supplier: string) => {
  const lines = of(supplier).map(b => `${sizesSaid(b)}  ${name(b)}, ${w('store.by', { day: day(b.on) })}`)
  return `mailto:?subject=${encodeURIComponent(w('store.order'))}&body=${encodeURIComponent(lines.join('\n'))}`
}
const query = (supplier: string) => `?supplier=${encodeURIComponent(supplier)}`
</script>

<template>
  <PageState v-if="!page" :failed="failed" />
  <div v-else class="grid xl:grid-cols-2 gap-10">
    <section data-test="buy">
      <h1>{{ w('store.buy') }}</h1>
      <p v-if="!page.buy.length" class="row">{{ w('store.nothingShort') }}</p>
      <div v-for="s in suppliers" :key="s" class="mb-6">
        <h2 class="flex flex-wrap gap-x-4 items-baseline">
          <span class="grow">{{ s || w('store.noSupplier') }}</span>
          <a class="underline text-base font-normal min-h-11 inline-flex items-center" :href="mailTo(s)">{{
            w('store.asMail')
          }}</a>
          <a
            class="underline text-base font-normal min-h-11 inline-flex items-center"
            target="_blank"
            :href="`/api/store/order${query(s)}`"
            >PDF</a
          >
          <a
            class="underline text-base font-normal min-h-11 inline-flex items-center"
            :href="`/api/store/order-list${query(s)}`"
            >CSV</a
          >
        </h2>
        <div
          v-for="b in of(s)"
          :key="`${b.productId} ${b.name} ${b.grit}`"
          class="row grid sm:grid-cols-[1fr_11rem] gap-x-4"
        >
          <span
            ><strong>{{ name(b) }}</strong>
            <span class="block text-madder">{{
              w('store.shortBy', { amount: quantitySaid(b.amount, b.unit), day: day(b.on) })
            }}</span>
            <span v-if="b.later" class="caption block">{{
              w('store.laterWanted', { amount: quantitySaid(b.later.amount, b.unit), day: day(b.later.on) })
            }}</span>
            <NuxtLink v-if="b.overId" class="block underline min-h-11 content-center" :to="`/lots/${b.overId}`">{{
              w('store.onlyOld')
            }}</NuxtLink>
            <span class="caption block"
              ><template v-if="!b.pieces.length">{{ w('store.forHouse') }}</template
              ><NuxtLink
                v-for="p in b.pieces.slice(0, 8)"
                :key="p"
                :to="`/pieces/${p}/plan`"
                class="mr-3 min-h-11 inline-flex items-center"
                >{{ p }}</NuxtLink
              ></span
            ></span
          >
          <span class="clock sm:text-right"
            ><strong>{{ sizesSaid(b) }}</strong
            ><span v-if="b.productId && session.may('see-prices')" class="caption block">{{
              money(b.price_minor)
            }}</span></span
          >
          <ArrivedForm
            v-if="b.productId && session.may('store')"
            :product-id="b.productId"
            :amount="Math.ceil(b.total)"
            :unit="b.unit"
            @added="load"
          />
        </div>
      </div>
    </section>
    <section data-test="needs">
      <h2>{{ w('store.needs') }}</h2>
      <p v-if="!page.needs.length" class="row">{{ w('store.noNeeds') }}</p>
      <div v-for="n in page.needs" :key="`${n.class} ${n.grit}`" class="row flex gap-4">
        <span class="grow"
          >{{ name(n) }}
          <span class="caption block">{{ w('store.firstOn', { day: day(n.first), n: n.pieces.length }) }}</span></span
        ><span class="clock text-right"
          >{{ quantitySaid(n.need, n.unit)
          }}<strong v-if="n.short > 0" class="block text-madder">{{
            w('store.short', { ml: quantitySaid(n.short, n.unit) })
          }}</strong></span
        >
      </div>
      <WhyNote :label="w('plan.whence')">{{ w('store.needsWhy') }}</WhyNote>
    </section>
  </div>
</template>
