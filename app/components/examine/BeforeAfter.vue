<script setup lang="ts">
/** Two photographs over one another; the slider draws the border between them. */
defineProps<{ before: string; after: string; caption: string }>()
const at = ref(50)
</script>

<template>
  <figure data-test="pair">
    <div class="relative bg-line aspect-4/3 max-h-88 w-full overflow-hidden">
      <img
        :src="`/api/photographs/${after}`"
        :alt="w('photo.after')"
        class="absolute inset-0 w-full h-full object-contain"
      />
      <img
        :src="`/api/photographs/${before}`"
        :alt="w('photo.before')"
        class="absolute inset-0 w-full h-full object-contain"
        :style="{ clipPath: `inset(0 ${100 - at}% 0 0)` }"
      />
      <div class="absolute inset-y-0 w-0.5 bg-sheet" :style="{ left: `${at}%` }" />
    </div>
    <input v-model.number="at" type="range" min="0" max="100" class="w-full h-11" :aria-label="w('photo.slider')" />
    <figcaption class="caption flex justify-between">
      <span>{{ w('photo.before') }}</span><span>{{ caption }}</span
      ><span>{{ w('photo.after') }}</span>
    </figcaption>
  </figure>
</template>
