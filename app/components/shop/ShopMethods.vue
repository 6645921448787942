<script setup lang="ts">
import { HOUSE_METHODS, HOUSE_SLUGS, type HouseSlug } from '#core/house'

/** How this shop works where good practitioners differ; the owner chooses. */
const session = useSession()
const { data: methods, load } = useLive('GET /api/house', topic => topic === 'shop')
const options = (slug: HouseSlug) =>
  Object.entries<{ says: string; why: string }>(HOUSE_METHODS[slug].options).map(([value, { says, why }]) => ({
    value,
    label: `${says}: ${why}`,
  }))
async function choose(slug: HouseSlug, choice: string) {
  await send('PUT /api/house', { body: { slug, choice, rowVersion: methods.value!.rowVersions[slug]! } })
  await load()
}
</script>

<template>
  <section v-if="methods" class="max-w-4xl" data-test="shop-house">
    <h2>{{ w('house.shop') }}</h2>
    <p class="caption">{{ w('house.shopWhy') }}</p>
    <ChoiceField
      v-for="slug in HOUSE_SLUGS"
      :key="slug"
      class="row"
      :model-value="methods.house[slug]"
      :label="HOUSE_METHODS[slug].asks"
      :options="options(slug)"
      :disabled="!session.may('shop')"
      @update:model-value="choose(slug, String($event))"
    />
  </section>
</template>
