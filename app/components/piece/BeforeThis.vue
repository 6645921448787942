<script setup lang="ts">
/** What this shop did to a piece before it came back: what lies on it, its colour and pots, what went wrong. */
const props = defineProps<{ id: number }>()
const { data } = useLive(
  'GET /api/pieces/:id/before',
  () => false,
  () => ({ id: props.id }),
)
const was = computed(() => data.value?.was ?? null)
const { day } = useFormat()
const laidIn = ({ parts, steps }: { parts: string[]; steps: string[] }) => {
  const said = { parts: parts.join(', '), steps: steps.join(' → ') }
  return was.value?.laid.length === 1 ? w('piece.onAll', said) : w('piece.onParts', said)
}
</script>

<template>
  <FoldOut v-if="was" open class="row mb-4" :title="w('piece.before', { id: was.id })" data-test="before">
    <p v-if="was.wentHomeAt">{{ w('piece.wentHome', { day: day(was.wentHomeAt) }) }} {{ w('piece.knownSo') }}</p>
    <ul class="grid gap-1 mt-1">
      <li v-for="l in was.laid" :key="l.parts.join()">{{ laidIn(l) }}</li>
      <li v-for="c in was.colours" :key="c.title">
        {{ w('piece.colourWas', { title: c.title })
        }}<template v-if="c.light">, {{ w('piece.inLight', { light: w(`colour.lights.${c.light}`) }) }}</template>
        <span class="caption block">{{ c.shares.map(s => `${s.name} ${s.pct} %`).join(', ') }}</span>
        <NuxtLink v-if="c.recipeId" class="underline mr-4" :to="`/colour/recipes?id=${c.recipeId}`">{{
          w('piece.recipeWas', { id: c.recipeId })
        }}</NuxtLink>
      </li>
      <li v-for="p in was.pots" :key="p.id">
        <NuxtLink class="underline" :to="`/mixing/${p.id}`">{{
          w('piece.potWas', {
            ...{ id: p.id, name: p.name, g: (p.left_g ?? 0).toFixed(0) },
            place: p.place ? w('piece.potAt', { place: p.place }) : '',
          })
        }}</NuxtLink>
      </li>
      <li v-if="was.readings.length">
        {{ w('piece.readingWas', { names: was.readings.map(r => r.name).join(', ') }) }}
      </li>
      <li v-for="f in was.faults" :key="f.id">
        <NuxtLink class="underline" :to="`/pieces/${was.id}/faults`">{{
          w('piece.wentWrong', { name: f.name })
        }}</NuxtLink><template v-if="f.cause">: {{ f.cause }}</template>
      </li>
    </ul>
    <a class="underline min-h-11 inline-flex items-center" :href="`/api/pieces/${was.id}/record`" target="_blank">{{
      w('piece.beforeRecord')
    }}</a>
  </FoldOut>
</template>
