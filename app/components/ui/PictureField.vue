<script setup lang="ts">
/** A photograph, by the camera or from a file; what was taken is named. */
defineProps<{ label: string }>()
const model = defineModel<File | null>({ required: true })
const take = (event: Event) => (model.value = (event.target as HTMLInputElement).files?.[0] ?? null)
</script>

<template>
  <label class="act act-quiet cursor-pointer"
    >{{ model ? model.name : label
    }}<input type="file" class="sr-only" accept="image/jpeg,image/png,image/webp" capture="environment" @change="take"
  /></label>
</template>
