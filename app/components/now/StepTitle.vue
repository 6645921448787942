<script setup lang="ts">
/** A step and its piece in a row of Now: a small picture, where it stands, and the way to the step itself. */
const props = defineProps<{
  step: { key: string; title: string; faces: string; pieceId: number; piece: string }
  /** what else is said of it, in the line under its piece */
  also?: string | null
  minutes?: string
}>()
const emit = defineEmits<{ piece: [id: number] }>()
const bench = inject(BENCH)!
const its = computed(() => bench.value?.pieces[props.step.pieceId])
</script>

<template>
  <div class="flex items-center gap-3 min-w-0">
    <button
      class="shrink-0 w-11 h-11 bg-plate flex items-center justify-center overflow-hidden"
      :aria-label="w('now.onlyPiece', { name: step.piece })"
      @click="emit('piece', step.pieceId)"
    >
      <img
        v-if="its?.thumb"
        :src="`/api/photographs/${its.thumb}?size=thumb`"
        alt=""
        class="w-full h-full object-cover"
      />
      <span v-else class="clock font-semibold">{{ step.pieceId }}</span>
    </button>
    <NuxtLink :to="`/pieces/${step.pieceId}/plan?step=${step.key}`" class="no-underline leading-snug min-w-0">
      <strong class="line-clamp-2">{{ step.title }}</strong>
      <span class="caption block truncate"
        >{{ step.pieceId }} · {{ step.piece }}<template v-if="its?.place"> · {{ its.place }}</template
        ><template v-if="minutes"> · {{ minutes }}</template> · {{ step.faces }}</span
      >
      <span v-if="also" class="caption block">{{ also }}</span>
    </NuxtLink>
  </div>
</template>
