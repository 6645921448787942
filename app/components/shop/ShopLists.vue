<script setup lang="ts">
/** Every list of the shop, to be taken out as CSV. */
const session = useSession()
const LISTS = [
  ...(['pieces', 'faces', 'findings', 'tests', 'moisture', 'steps', 'spells', 'log', 'faults'] as const),
  ...(['products', 'lots', 'uses', 'moves', 'recipes', 'pots', 'climate'] as const),
]
const MONEY = ['prices', 'materials', 'answers', 'quotations'] as const
const lists = computed(() => [...LISTS, ...(session.may('see-prices') ? MONEY : [])])
const comma = ref(false)
</script>

<template>
  <section data-test="lists">
    <h2>{{ w('lists.title') }}</h2>
    <p class="caption">{{ w('lists.why') }}</p>
    <SwitchField v-model="comma" :label="w('lists.comma')" />
    <ul class="grid grid-cols-2 gap-x-4">
      <li v-for="l in lists" :key="l">
        <a
          class="underline min-h-11 inline-flex items-center"
          :href="`/api/lists/${l}?decimal=${comma ? 'comma' : 'point'}`"
          >{{ w(`lists.of.${l}`) }}</a
        >
      </li>
    </ul>
  </section>
</template>
