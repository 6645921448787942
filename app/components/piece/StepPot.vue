<script setup lang="ts">
import { materialOf } from '#core/materials'

/** The pots of the recipe that a step is coloured by: those that stand, and one mixed for this step. */
const props = defineProps<{ recipe: string; amountMl: number | null; pieceId: number; can: boolean }>()
const { dayTime } = useFormat()
const found = shallowRef<{ id: number; class: string } | null>(null)
const pots = shallowRef<{ id: number; left_g: number | null; potEnds_ms: number | null }[]>([])
const read = ref(false)
const busy = ref(false)
onMounted(async () => {
  const both = await Promise.all([
    call('GET /api/recipes', { query: { find: props.recipe } }),
    call('GET /api/batches', { query: { which: 'open' } }),
  ]).catch(() => null)
  if (!both) return
  const [recipes, batches] = both
  found.value = recipes.find(r => r.name === props.recipe) ?? null
  const ids = new Set(recipes.filter(r => r.name === props.recipe).map(r => r.id))
  pots.value = batches.filter(b => b.recipe_id !== null && ids.has(b.recipe_id) && b.left_g !== 0)
  read.value = true
})
/** What the step takes, by weight. */
const total_g = computed(() =>
  found.value && props.amountMl ? Math.ceil(props.amountMl * materialOf(found.value.class).density) : null,
)
const saysOf = (p: (typeof pots.value)[number]) =>
  [
    w('plan.pot', { id: p.id }),
    ...(p.left_g === null ? [] : [w('plan.potLeft', { g: Math.round(p.left_g) })]),
    ...(p.potEnds_ms === null ? [] : [w('plan.potEnds', { at: dayTime(p.potEnds_ms) })]),
  ].join(', ')
async function mix() {
  busy.value = true
  const body = {
    kind: 'recipe' as const,
    recipeId: found.value!.id,
    total_g: total_g.value!,
    pieceId: props.pieceId,
    smallest_g: 0.1,
  }
  const done = await send('POST /api/batches', { body })
  busy.value = false
  if (done) await navigateTo(`/mixing/${done.id}`)
}
</script>

<template>
  <div v-if="read" class="flex flex-wrap items-center gap-x-4 gap-y-2" data-test="step-pot">
    <p v-if="!found" class="text-ochre">{{ w('plan.recipeGone', { name: recipe }) }}</p>
    <NuxtLink v-for="p in pots" :key="p.id" :to="`/mixing/${p.id}`" class="act act-quiet no-underline">{{
      saysOf(p)
    }}</NuxtLink>
    <button v-if="can && total_g" type="button" class="act act-quiet" :disabled="busy" @click="mix">
      {{ w('plan.mixPot', { g: total_g, name: recipe }) }}
    </button>
  </div>
</template>
