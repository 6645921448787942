<script setup lang="ts">
/** Colours beside one another without a gap, on neutral grey, under the chosen light. */
const props = defineProps<{
  colours: readonly { name: string; spectrum: readonly number[] | null; note?: string }[]
  tall?: boolean
}>()
const light = useLight()
const shown = computed(() => props.colours.filter(c => c.spectrum !== null))
</script>

<template>
  <figure class="bg-[#777777] p-4 pb-3" data-test="swatches">
    <div class="flex" :class="tall ? 'h-44' : 'h-24'">
      <div
        v-for="c in shown"
        :key="c.name"
        class="grow basis-0"
        :style="{ background: swatch(c.spectrum!, light) }"
        role="img"
        :aria-label="c.name"
        :data-hex="swatch(c.spectrum!, light)"
      />
    </div>
    <figcaption class="flex mt-1 text-sm text-white bg-[#4a4a4a]">
      <span v-for="c in shown" :key="c.name" class="grow basis-0 px-2 py-1 leading-tight"
        ><strong class="block">{{ c.name }}</strong
        >{{ c.note }}</span
      >
    </figcaption>
  </figure>
</template>
