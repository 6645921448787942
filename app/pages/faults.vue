<script setup lang="ts">
/** What the shop learns from what went wrong: by cause, product and season; one's own is seen by oneself. */
const open = computed(() => String(useRoute().query.sign ?? ''))
const {
  data: all,
  failed,
  load,
} = useLive(
  'GET /api/faults',
  topic => topic === 'piece',
  () => ({}),
)
const tables = computed(() =>
  all.value
    ? ([
        ['byCause', all.value.byCause],
        ['byProduct', all.value.byProduct],
        ['bySeason', all.value.bySeason],
        ['mine', all.value.mine],
      ] as const)
    : [],
)
const SEASONS = ['winter', 'spring', 'summer', 'autumn'] as const
const said = (says: string) => {
  const season = SEASONS.find(s => s === says)
  return season ? w(`fault.seasons.${season}`) : says.replaceAll('-', ' ')
}
</script>

<template>
  <div class="max-w-4xl">
    <h1>{{ w('fault.all') }}</h1>
    <PageState v-if="!all" :failed="failed" />
    <template v-else>
      <p v-if="!all.byCause.length" class="mt-2">{{ w('fault.nothingLearnt') }}</p>
      <div class="grid lg:grid-cols-2 gap-10 mt-4">
        <section v-for="[name, rows] in tables" :key="name">
          <template v-if="rows.length">
            <h2>{{ w(`fault.${name}`) }}</h2>
            <p v-for="r in rows" :key="r.says" class="row flex flex-wrap gap-x-4">
              <span class="grow">{{ said(r.says) }}</span><strong class="clock">{{ r.n }}</strong>
              <span class="caption basis-full"
                ><NuxtLink
                  v-for="p in r.pieces"
                  :key="p"
                  :to="`/pieces/${p}/faults`"
                  class="mr-3 min-h-11 inline-flex items-center"
                  >{{ p }}</NuxtLink
                ></span
              >
            </p>
          </template>
        </section>
        <p class="flex flex-wrap gap-x-6">
          <NuxtLink
            v-for="ask in ['gates', 'lasts'] as const"
            :key="ask"
            class="underline min-h-11 inline-flex items-center"
            :to="`/shop?part=record&ask=${ask}`"
            >{{ w(`record.asks.${ask}`) }}</NuxtLink
          >
        </p>
      </div>
      <SignBook :grades="all.grades" :open="open" @changed="load" />
    </template>
  </div>
</template>
