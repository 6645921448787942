<script setup lang="ts">
/** The usual figures of each product class: shop defaults until a label or the shop's own record outranks them. */
interface Line {
  slug: string
  name: string
  wet_um: number | null
  spread_g_m2: readonly number[] | null
  density: number
  recoat_min: readonly number[]
}
defineProps<{ materials: readonly Line[] }>()
const { hours } = useFormat()
</script>

<template>
  <section>
    <h2>{{ w('shop.defaults') }}</h2>
    <p class="caption">{{ w('shop.defaultsWhy') }}</p>
    <div v-for="m in materials" :key="m.slug" class="row grid grid-cols-[1fr_auto] gap-3 caption clock">
      <span class="text-ink">{{ m.name }}</span><span
        >{{ m.wet_um ? `${m.wet_um} µm` : `${m.spread_g_m2?.join(' / ')} g/m²` }} · {{ m.density }} g/ml ·
        {{ hours(m.recoat_min[0]!) }}</span
      >
    </div>
    <NuxtLink to="/judgement" class="underline min-h-11 inline-flex items-center mt-3">{{
      w('exam.howSure')
    }}</NuxtLink>
  </section>
</template>
