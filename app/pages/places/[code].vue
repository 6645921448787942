<script setup lang="ts">
const route = useRoute()
const { data: place, failed } = useLive(
  'GET /api/places/:code',
  topic => topic === 'piece',
  () => ({ code: String(route.params.code) }),
)
</script>

<template>
  <p v-if="failed" class="verdict verdict-stop">{{ failed.message }}</p>
  <div v-else-if="place">
    <h1>
      {{ place.code }} <span class="caption">{{ w(`place.${place.kind}`) }}</span>
    </h1>
    <div v-for="i in place.items" :key="i.id" class="row flex flex-wrap gap-4 items-baseline">
      <strong class="clock text-xl">{{ i.mark }}</strong><span class="grow"
        >{{ i.name
        }}<template v-if="i.taken_out"> · {{ w('parts.away', { n: i.taken_out - (i.put_back ?? 0) }) }}</template></span
      ><NuxtLink :to="`/pieces/${i.piece_id}/parts`">{{ i.piece_id }} {{ i.piece }}</NuxtLink>
    </div>
    <p v-if="!place.items.length" class="mt-2">{{ w('place.empty') }}</p>
    <LabelLinks class="mt-4" :says="w('parts.label')" :address="`/api/places/${place.code}/label`" />
  </div>
  <p v-else>{{ w('loading') }}</p>
</template>
