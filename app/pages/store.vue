<script setup lang="ts">
/** Products and cans that are here, and what open plans want of them. */
const route = useRoute()
const router = useRouter()
const { data: store, load, failed } = useLive('GET /api/store', topic => topic !== 'air')
const tabs = (['products', 'needs', 'round', 'air'] as const).map(name => ({ name, label: w(`store.parts.${name}`) }))
const part = computed({
  get: () => String(route.query.part ?? 'products'),
  set: name => void router.replace({ query: { part: name } }),
})
</script>

<template>
  <TabRow v-if="store" v-model="part" :label="w('store.partsOf')" :tabs="tabs">
    <template #products><StoreProducts :products="store.products" @changed="load" /></template>
    <template #needs><StoreNeeds /></template>
    <template #round><StoreRound :products="store.products" @changed="load" /></template>
    <template #air><StoreAir /></template>
  </TabRow>
  <PageState v-else :failed="failed" />
</template>
