<script setup lang="ts">
/** What two people told of one step is entered from when to when it really was. */
const props = defineProps<{ acts: BenchNow['late'] }>()
const emit = defineEmits<{ close: [] }>()
const { dayTime } = useFormat()
const from = ref<number | null>(Date.parse(props.acts[0]!.happened_at))
const to = ref<number | null>(Date.parse(props.acts.at(-1)!.happened_at))
const errors = ref<Record<string, string>>({})
async function settle() {
  if (from.value === null || to.value === null) return
  const body = { way: 'times' as const, from: new Date(from.value).toISOString(), to: new Date(to.value).toISOString() }
  try {
    await sendOnce('POST /api/late/:id/settle', { id: props.acts[0]!.id, body })
    emit('close')
  } catch (error) {
    const { fields, message } = problem(error)
    errors.value = fields ?? { to: message }
  }
}
</script>

<template>
  <DialogBox :title="w('late.times')" @close="emit('close')">
    <p v-for="a in acts" :key="a.id" class="caption mt-2">{{ a.by }}: {{ a.says }}, {{ dayTime(a.happened_at) }}</p>
    <div class="grid gap-4 mt-4">
      <MomentField v-model="from" :label="w('late.from')" :error="errors.from" />
      <MomentField v-model="to" :label="w('late.to')" :error="errors.to" />
      <div class="flex gap-3">
        <button class="act" @click="settle">{{ w('late.settle') }}</button>
        <button class="act act-quiet" @click="emit('close')">{{ w('cancel') }}</button>
      </div>
    </div>
  </DialogBox>
</template>
