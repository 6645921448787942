<script setup lang="ts">
/** What the store says to a plan: short, or only an old can. */
import { quantitySaid } from '#core/store'

const props = defineProps<{ id: number }>()
const { day } = useFormat()
const { data: needs } = useLive(
  'GET /api/pieces/:id/needs',
  (topic, piece) => topic === 'store' || (topic === 'piece' && piece === props.id),
  () => ({ id: props.id }),
)
const said = computed(() =>
  (needs.value ?? []).map(n => {
    const name = n.grit ? `${n.name}, ${n.grit}` : n.name
    if (n.overId) return w('lot.planOld', { name })
    return w('lot.planShort', { name, amount: quantitySaid(n.amount, n.unit), day: day(n.on) })
  }),
)
</script>

<template>
  <FoldOut v-if="said.length" class="row" :title="w('store.planShort', { n: said.length })" data-test="plan-needs">
    <ul>
      <li v-for="s in said" :key="s">{{ s }}</li>
    </ul>
    <NuxtLink class="underline min-h-11 inline-flex items-center" to="/store?part=needs">{{
      w('store.toNeeds')
    }}</NuxtLink>
  </FoldOut>
</template>
