<script setup lang="ts">
const route = useRoute()
const router = useRouter()
const session = useSession()
const { data: shop, load, failed } = useLive('GET /api/shop', topic => topic === 'shop')
const PARTS = ['shop', 'people', 'methods', 'figures'] as const
const tabs = PARTS.map(name => ({ name, label: w(`shop.parts.${name}`) }))
const part = computed({
  get: () => String(route.query.part ?? 'shop'),
  set: name => void router.replace({ query: { part: name } }),
})
</script>

<template>
  <TabRow v-if="shop" v-model="part" :label="w('shop.partsOf')" :tabs="tabs">
    <template #shop>
      <div class="grid lg:grid-cols-2 gap-10">
        <ShopSettings :shop="shop" @changed="load" />
        <div class="grid gap-8 content-start">
          <ShopHours :shop="shop" @changed="load" />
          <ShopAir v-if="session.may('work')" />
          <ShopBackup :shop="shop" @changed="load" />
        </div>
      </div>
    </template>
    <template #people>
      <div class="grid lg:grid-cols-2 gap-10">
        <div class="grid gap-8 content-start">
          <ShopPeople :people="shop.people" @changed="load" />
          <ShopDevice />
          <ShopLan />
          <ShopTablets />
          <ShopSessions />
        </div>
        <div class="grid gap-8 content-start">
          <ShopRights :rights="shop.rights" @changed="load" />
          <ShopLicences :licences="shop.licences" :people="shop.people" @changed="load" />
        </div>
      </div>
    </template>
    <template #methods><ShopMethods /></template>
    <template #figures><ShopFigures class="max-w-4xl" :materials="shop.materials" /></template>
  </TabRow>
  <PageState v-else :failed="failed" />
</template>
