<script setup lang="ts">
/** When a client who did not answer is reminded. */
const props = defineProps<{ days: number; most: number }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const form = reactive({ days: props.days as number | null, most: props.most as number | null })
watch(
  () => [props.days, props.most] as const,
  ([days, most]) => Object.assign(form, { days, most }),
)
async function save() {
  if (await send('PUT /api/shop/reminders', { body: { days: form.days ?? 0, most: form.most ?? 0 } })) emit('changed')
}
</script>

<template>
  <section data-test="reminders">
    <h2>{{ w('shop.reminders') }}</h2>
    <p class="caption">{{ w('shop.remindersWhy') }}</p>
    <form v-if="session.may('shop')" class="grid sm:grid-cols-2 gap-3 mt-2" @submit.prevent="save">
      <NumberField v-model="form.days" :label="w('shop.remindDays')" :min="0" :max="60" />
      <NumberField v-model="form.most" :label="w('shop.remindMost')" :min="0" :max="5" />
      <button class="act justify-self-start">{{ w('save') }}</button>
    </form>
  </section>
</template>
