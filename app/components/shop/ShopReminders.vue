<script setup lang="ts">
/** When a client who did not answer is reminded, and how quotations are made. */
const props = defineProps<{ shop: AnswerOf<'GET /api/shop'> }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const formOf = ({ shop: x }: typeof props) => ({
  ...{ days: x.remind_days as number | null, most: x.remind_most as number | null },
  ...{ holds: x.quote_days as number | null, deposit: (x.deposit_bp / 100) as number | null, words: x.quote_words },
  ...{ free: x.store_free_days as number | null, day: (x.store_day_minor / 100) as number | null },
})
const form = reactive(formOf(props))
watch(
  () => props.shop,
  () => Object.assign(form, formOf(props)),
)
async function save() {
  const reminders = { days: form.days ?? 0, most: form.most ?? 0 }
  const depositBp = Math.round((form.deposit ?? 0) * 100)
  const storage = { freeDays: form.free ?? 0, dayMinor: Math.round((form.day ?? 0) * 100) }
  const quoting = { days: form.holds ?? 30, depositBp, words: form.words, ...storage }
  if (!(await send('PUT /api/shop/reminders', { body: reminders }))) return
  if (await send('PUT /api/shop/quoting', { body: quoting })) emit('changed')
}
</script>

<template>
  <section v-if="session.may('shop')" data-test="reminders">
    <h2>{{ w('shop.reminders') }}</h2>
    <p class="caption">{{ w('shop.remindersWhy') }}</p>
    <form class="grid sm:grid-cols-2 gap-3 mt-2" @submit.prevent="save">
      <NumberField v-model="form.days" :label="w('shop.remindDays')" :min="0" :max="60" />
      <NumberField v-model="form.most" :label="w('shop.remindMost')" :min="0" :max="5" />
      <NumberField v-model="form.holds" :label="w('shop.quoteDays')" :min="1" :max="365" />
      <NumberField v-model="form.deposit" :label="w('shop.deposit')" :min="0" :max="100" step="any" />
      <NumberField v-model="form.free" :label="w('shop.storeFree')" :min="0" :max="365" />
      <NumberField v-model="form.day" :label="w('shop.storeDay')" :min="0" :max="1000000" step="any" />
      <label class="sm:col-span-2"
        >{{ w('shop.quoteWords') }} <textarea v-model="form.words" class="field" rows="2" maxlength="1000" />
      </label>
      <button class="act justify-self-start">{{ w('save') }}</button>
    </form>
  </section>
</template>
