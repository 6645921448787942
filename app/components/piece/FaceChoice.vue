<script setup lang="ts">
/** Some of the faces, chosen by touch. */
defineProps<{ faces: readonly { id: number; name: string }[]; label: string }>()
const chosen = defineModel<number[]>({ required: true })
const toggle = (id: number) => {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter(f => f !== id) : [...chosen.value, id]
}
</script>

<template>
  <div role="group" :aria-label="label" class="flex flex-wrap gap-2">
    <button
      v-for="f in faces"
      :key="f.id"
      type="button"
      class="border px-3 min-h-12 text-left"
      :class="chosen.includes(f.id) ? 'border-verdigris border-2 bg-verdigris-wash font-semibold' : 'border-line'"
      :aria-pressed="chosen.includes(f.id)"
      @click="toggle(f.id)"
    >
      {{ f.name }}
    </button>
  </div>
</template>
