<script setup lang="ts">
import type { ComposeAnswer } from '~/workers/compose.worker'

/** What the rules say of a composed surface; a touch chooses the layer that it is said of. */
defineProps<{ verdicts: NonNullable<ComposeAnswer['verdicts']>; judged: boolean }>()
const emit = defineEmits<{ choose: [layer: number] }>()
const GRAVE = ['stop', 'forbidden']
</script>

<template>
  <section>
    <h3>{{ w('surface.speaks') }}</h3>
    <p v-if="judged && verdicts.length === 0" class="text-moss">{{ w('surface.clear') }}</p>
    <p
      v-for="v in verdicts"
      :key="`${v.rule} ${v.step}`"
      class="verdict"
      :class="GRAVE.includes(v.severity) ? 'verdict-stop' : ''"
    >
      <button
        v-if="v.layer !== null"
        type="button"
        class="underline text-left min-h-11"
        @click="emit('choose', v.layer)"
      >
        {{ v.says }}</button><template v-else>{{ v.says }}</template
      >. {{ v.mend }}
    </p>
  </section>
</template>
