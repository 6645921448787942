<script setup lang="ts">
/** What the store says to a plan: short, only an old can, or one with a skin. */
import { quantitySaid } from '#core/store'

const props = defineProps<{ id: number }>()
const { day } = useFormat()
const { data: needs } = useLive(
  'GET /api/pieces/:id/needs',
  (topic, piece) => topic === 'store' || (topic === 'piece' && piece === props.id),
  () => ({ id: props.id }),
)
/** Cans that are here want a look; of all else there is not enough. */
const short = computed(() => (needs.value ?? []).filter(n => n.skinned === null).length)
const title = computed(() =>
  short.value ? w('store.planShort', { n: short.value }) : w('store.planLook', { n: needs.value?.length ?? 0 }),
)
const said = computed(() =>
  (needs.value ?? []).map(n => {
    const name = n.grit ? `${n.name}, ${n.grit}` : n.name
    if (n.skinned !== null) return w('lot.planSkinned', { name, code: n.skinned })
    if (n.overId) return w('lot.planOld', { name })
    return w('lot.planShort', { name, amount: quantitySaid(n.amount, n.unit), day: day(n.on) })
  }),
)
</script>

<template>
  <FoldOut v-if="said.length" class="row" :title="title" data-test="plan-needs">
    <ul>
      <li v-for="s in said" :key="s">{{ s }}</li>
    </ul>
    <NuxtLink class="underline min-h-11 inline-flex items-center" to="/store?part=needs">{{
      w('store.toNeeds')
    }}</NuxtLink>
  </FoldOut>
</template>
