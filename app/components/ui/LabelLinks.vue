<script setup lang="ts">
/** Labels at an address, on the stock that is at hand. `sheet`: they may stand on a sheet that is partly used. */
const props = defineProps<{ says: string; address: string; query?: Record<string, string> }>()
const from = ref(1)
const STOCK = ['own', 'roll', 'sheet'] as const
const link = (stock: (typeof STOCK)[number]) =>
  `${props.address}?${new URLSearchParams({
    ...{ ...props.query, stock, from: stock === 'sheet' ? String(from.value) : '1' },
  })}`
</script>

<template>
  <p class="flex flex-wrap gap-x-4 items-center">
    <span>{{ says }}</span>
    <a
      v-for="stock in STOCK"
      :key="stock"
      class="underline min-h-11 inline-flex items-center"
      :href="link(stock)"
      target="_blank"
      >{{ w(`labels.${stock}`) }}</a
    >
    <label class="caption inline-flex items-center gap-2"
      >{{ w('labels.from') }} <input v-model.number="from" class="field w-16" type="number" min="1" max="30"
    /></label>
  </p>
</template>
