<script setup lang="ts">
import type { Waiting } from '~/offline/carried'

/** What was done on this device and has not gone in: looked at, and taken back. */
const emit = defineEmits<{ close: [] }>()
const waiting = useWaiting()
const session = useSession()
const { dayTime } = useFormat()
const draft = useTakeInDraft()
/** A piece that was taken in here is a draft again: nothing that was typed is lost. */
async function takeBack(act: Waiting) {
  if (!(await waiting.takeBack(act)) || act.key !== 'POST /api/pieces') return
  draft.value = JSON.stringify(act.asking.body)
  // written before this box is gone
  await nextTick()
  emit('close')
  await navigateTo('/pieces/new')
}
function wordOfBack(act: Waiting) {
  if (act.key === 'POST /api/pieces') return 'waiting.again'
  return act.refused ? 'waiting.drop' : 'waiting.back'
}
const behind = (act: Waiting) =>
  waiting.acts.filter(a => a.stepId === act.stepId && a.stepId !== null && a.no! > act.no!).length
</script>

<template>
  <DialogBox :title="w('waiting.title')" @close="emit('close')">
    <p class="mt-2">{{ w(waiting.acts.length ? 'waiting.why' : 'waiting.none') }}</p>
    <div v-for="act in waiting.acts" :key="act.no" class="row flex items-center gap-3" data-test="waits">
      <div class="grow min-w-0">
        <strong class="block">{{ act.says }}</strong>
        <span class="caption block"
          ><template v-if="act.pieceId">{{ act.pieceId }} · </template
          >{{ w('waiting.by', { name: act.person, at: dayTime(act.happened_ms) })
          }}<template v-if="act.byName">, {{ w('waiting.byName') }}</template></span
        >
        <span v-if="act.refused" class="block text-madder">{{ w('waiting.refused', { why: act.refused }) }}</span>
        <span v-else-if="!session.tablet && session.person?.id !== act.personId" class="caption block">{{
          w('waiting.needs', { name: act.person })
        }}</span>
        <span v-else-if="behind(act)" class="caption block">{{ w('waiting.behind', { n: behind(act) }) }}</span>
      </div>
      <button class="act act-quiet shrink-0" @click="takeBack(act)">
        {{ w(wordOfBack(act)) }}
      </button>
    </div>
    <div class="mt-4">
      <button class="act act-quiet" @click="emit('close')">{{ w('close') }}</button>
    </div>
  </DialogBox>
</template>
