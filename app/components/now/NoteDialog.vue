<script setup lang="ts">
import type { ActTarget } from '~/composables/bench'

/** A word or a photograph on a step, whatever state it is in. */
const props = defineProps<{ step: ActTarget & { pieceId: number } }>()
const emit = defineEmits<{ close: [] }>()
const says = ref('')
const picture = ref<File | null>(null)
const busy = ref(false)
async function keep() {
  busy.value = true
  const pictured = !picture.value || (await addStepPicture(props.step, picture.value))
  if (pictured) picture.value = null
  if (pictured && (!says.value.trim() || (await actAtBench('note', props.step, 0, { says: says.value })))) emit('close')
  busy.value = false
}
</script>

<template>
  <DialogBox :title="step.title" @close="emit('close')">
    <label class="block mt-4"
      >{{ w('bench.noteSays') }}
      <textarea v-model="says" class="field mt-1" rows="3" maxlength="800" data-test="step-note" />
    </label>
    <PictureField v-model="picture" class="mt-4" :label="w('bench.notePicture')" />
    <div class="flex gap-3 mt-4">
      <button class="act" :disabled="busy || (!says.trim() && !picture)" @click="keep">{{ w('bench.keep') }}</button>
      <button class="act act-quiet" @click="emit('close')">{{ w('cancel') }}</button>
    </div>
  </DialogBox>
</template>
