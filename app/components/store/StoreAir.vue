<script setup lang="ts">
/** What evaporated and what was thrown away, by month. */
import { quantitySaid } from '#core/store'

const { data: page, failed } = useLive('GET /api/store/voc', topic => topic === 'store')
const month = (m: string) =>
  new Date(`${m}-01T12:00:00Z`).toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })
</script>

<template>
  <PageState v-if="!page" :failed="failed" />
  <section v-else class="max-w-3xl">
    <h1 class="flex flex-wrap items-baseline gap-x-4">
      <span class="grow">{{ w('store.voc') }}</span>
      <a class="underline text-base font-normal min-h-11 inline-flex items-center" href="/api/store/voc-list">CSV</a>
    </h1>
    <p v-if="!page.months.length" class="row">{{ w('store.noVoc') }}</p>
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
</template>
