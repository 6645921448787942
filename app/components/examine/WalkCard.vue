<script setup lang="ts">
/** One question of the walk, for one hand and gloves. */
const props = defineProps<{ question: WalkQuestion; busy: boolean }>()
const emit = defineEmits<{ answer: [options: string[]] }>()
const picked = ref<string[]>([])
watch(
  () => props.question.key,
  () => {
    picked.value = [...(props.question.answer ?? [])]
  },
  { immediate: true },
)
function pick(slug: string) {
  if (!props.question.many) {
    emit('answer', [slug])
    return
  }
  if (slug === props.question.nothing) {
    emit('answer', [slug])
    return
  }
  picked.value = picked.value.includes(slug)
    ? picked.value.filter(p => p !== slug)
    : [...picked.value.filter(p => p !== props.question.nothing), slug]
}
</script>

<template>
  <section data-test="question" :data-key="question.key">
    <p class="caption">
      {{ w(`station.${question.station}`) }}<template v-if="question.part"> · {{ question.part }}</template>
    </p>
    <h2 class="text-2xl! leading-snug mt-1">{{ question.asks }}</h2>
    <p class="mt-1 text-soft">{{ question.how }}</p>
    <div class="grid sm:grid-cols-2 gap-3 mt-4">
      <button
        v-for="o in question.options"
        :key="o.slug"
        class="act min-h-16! text-lg"
        :class="picked.includes(o.slug) ? '' : 'act-quiet'"
        :aria-pressed="picked.includes(o.slug)"
        :disabled="busy"
        @click="pick(o.slug)"
      >
        {{ o.finding && !o.says ? w(`finding.${o.finding}`) : o.says }}
      </button>
    </div>
    <button
      v-if="question.many && picked.length"
      class="act min-h-16! text-lg w-full mt-4"
      :disabled="busy"
      @click="emit('answer', picked)"
    >
      {{ w('exam.takeThese', { n: picked.length }) }}
    </button>
  </section>
</template>
