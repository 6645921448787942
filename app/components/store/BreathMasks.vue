<script setup lang="ts">
/** Whose cartridges are worn how far; new ones are said by a touch. */
const props = defineProps<{ masks: AnswerOf<'GET /api/breath'>['masks'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { day } = useFormat()
const fitting = ref<number | null>(null)
const figures = reactive<{ lasts_h: number | null; lasts_d: number | null }>({ lasts_h: 8, lasts_d: 30 })
const may = (personId: number) =>
  session.may('work') && (personId === session.person?.id || session.person?.role === 'owner')
function begin(personId: number) {
  const was = props.masks.find(m => m.personId === personId)?.fitted
  Object.assign(figures, { lasts_h: was?.lasts_h ?? 8, lasts_d: was?.lasts_d ?? 30 })
  fitting.value = personId
}
async function fit(personId: number) {
  const { lasts_h, lasts_d } = figures
  const body = { personId, lasts_h: lasts_h ?? 0, lasts_d: lasts_d ?? 0 }
  const done = await send('POST /api/breath/cartridges', { body })
  if (!done) return
  fitting.value = null
  useNotes().show(w('breath.fit'), 'done', async () => {
    if (await send('DELETE /api/breath/cartridges/:id', { id: done.id })) emit('changed')
  })
  emit('changed')
}
</script>

<template>
  <section data-test="masks">
    <h2>{{ w('breath.masks') }}</h2>
    <div v-for="m in masks" :key="m.personId" class="row">
      <p class="flex flex-wrap items-center gap-x-4">
        <strong class="grow">{{ m.name }}</strong>
        <span
          v-if="m.fitted && m.fitted.state !== 'good'"
          :class="m.fitted.state === 'over' ? 'text-madder' : 'text-ochre'"
          >{{ w(`breath.${m.fitted.state}`) }}</span
        >
        <button v-if="may(m.personId) && fitting !== m.personId" class="act act-quiet" @click="begin(m.personId)">
          {{ w('breath.fit') }}
        </button>
      </p>
      <p class="caption">
        {{
          m.fitted
            ? w('breath.fitted', {
                day: day(m.fitted.fitted_ms),
                worn: (m.fitted.worn_min / 60).toFixed(1),
                lasts: m.fitted.lasts_h,
                until: day(m.fitted.until_ms),
              })
            : w('breath.none')
        }}
      </p>
      <form v-if="fitting === m.personId" class="flex flex-wrap items-end gap-3 mt-1" @submit.prevent="fit(m.personId)">
        <NumberField v-model="figures.lasts_h" :label="w('breath.lastsH')" :min="0.5" :step="0.5" />
        <NumberField v-model="figures.lasts_d" :label="w('breath.lastsD')" :min="1" />
        <button class="act">{{ w('breath.fit') }}</button>
        <button type="button" class="act act-quiet" @click="fitting = null">{{ w('cancel') }}</button>
      </form>
    </div>
    <WhyNote :label="w('plan.whence')">{{ w('breath.masksWhy') }}</WhyNote>
  </section>
</template>
