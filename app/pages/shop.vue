<script setup lang="ts">
const route = useRoute()
const router = useRouter()
const session = useSession()
const { data: shop, load, failed } = useLive('GET /api/shop', topic => topic === 'shop')
const {
  data: rooms,
  load: loadRooms,
  failed: roomsFailed,
} = useLive('GET /api/rooms', topic => topic === 'shop' || topic === 'air')
const PARTS = ['shop', 'rooms', 'people', 'methods', 'figures', 'record'] as const
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
          <ShopReminders :shop="shop" @changed="load" />
          <ShopLetters :shop="shop" @changed="load" />
          <ShopAir v-if="session.may('work')" :rooms="rooms?.rooms.filter(r => r.logger) ?? []" />
          <ShopBackup :shop="shop" @changed="load" />
          <ShopLists />
        </div>
      </div>
    </template>
    <template #rooms>
      <div v-if="rooms" class="grid lg:grid-cols-2 gap-10">
        <ShopRooms :rooms="rooms.rooms" :loggers="rooms.loggers" @changed="loadRooms" />
        <div class="grid gap-8 content-start">
          <ShopPresence :people="rooms.people" :hours="rooms.hours" @changed="loadRooms" />
          <ShopFetching :days="rooms.fetchDays" @changed="loadRooms" />
          <ShopFeeds :people="rooms.people" :rooms="rooms.rooms" />
        </div>
      </div>
      <PageState v-else :failed="roomsFailed" />
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
    <template #record><ShopRecord /></template>
    <template #figures>
      <div class="grid lg:grid-cols-2 gap-10">
        <ShopFigures :materials="shop.materials" />
        <ShopPaces class="content-start" />
      </div>
    </template>
  </TabRow>
  <PageState v-else :failed="failed" />
</template>
