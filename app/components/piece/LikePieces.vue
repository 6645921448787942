<script setup lang="ts">
/** Pieces like this one, and what was done to them. */
const props = defineProps<{ id: number }>()
const { data: pieces, failed } = useLive(
  'GET /api/pieces/:id/like',
  () => false,
  () => ({ id: props.id }),
)
const { day, hours } = useFormat()
type Like = NonNullable<typeof pieces.value>[number]
const alike = ({ alike: a }: Like) =>
  (['name', 'wood', 'layers', 'client'] as const)
    .filter(what => a[what])
    .map(what => w(`like.by.${what}`))
    .join(', ')
</script>

<template>
  <PageState v-if="!pieces" :failed="failed" />
  <p v-else-if="!pieces.length" class="row">{{ w('like.none') }}</p>
  <NuxtLink
    v-for="p in pieces ?? []"
    :key="p.id"
    :to="`/pieces/${p.id}/plan`"
    class="row block no-underline"
    data-test="like"
  >
    <strong>{{ p.id }} {{ p.name }}</strong> · {{ p.client }}, {{ day(p.handed_over_at ?? p.taken_in_at) }}
    <span class="block"
      >{{ [p.ground ? w(`route.${p.ground}`) : '', ...p.laid].filter(Boolean).join(' · ')
      }}<template v-if="p.worked_min"> · {{ w('like.worked', { time: hours(p.worked_min) }) }}</template
      ><span v-if="p.failed" class="text-ochre"> · {{ w('like.failed', { n: p.failed }) }}</span></span
    >
    <span class="caption block">{{ w('like.alike', { by: alike(p) }) }}</span>
  </NuxtLink>
</template>
