<script setup lang="ts">
import { type LicenceKind, LICENCES } from '#core/safety'

/** Licences that lift what is otherwise forbidden: who holds it, its number, until when. */
interface Licence {
  id: number
  person_id: number
  name: string
  kind: LicenceKind
  number: string
  valid_until: string
}
defineProps<{ licences: readonly Licence[]; people: readonly { id: number; name: string; active: boolean }[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const clock = useClock()
const {
  draft: form,
  errors,
  submit,
  reset,
} = useForm('POST /api/licences', () => ({
  personId: null,
  kind: 'isocyanates',
  number: '',
  validUntil: '',
}))
const ended = (day: string) => day < new Date(clock.now).toISOString().slice(0, 10)
async function add() {
  if (!(await submit({}))) return
  reset()
  emit('changed')
}
async function record(body: BodyOf<'POST /api/licences'>) {
  await send('POST /api/licences', { body })
  emit('changed')
}
async function withdraw({ id, person_id: personId, kind, number, valid_until: validUntil }: Licence) {
  if (!(await send('DELETE /api/licences/:id', { id }))) return
  emit('changed')
  useNotes().show(w('shop.licenceGone'), 'done', async () => record({ personId, kind, number, validUntil }))
}
</script>

<template>
  <section data-test="licences">
    <h2>{{ w('shop.licences') }}</h2>
    <p class="caption">{{ w('shop.licencesWhy') }}</p>
    <p v-for="l in licences" :key="l.id" class="row flex flex-wrap gap-3 items-center">
      <span class="grow"
        ><strong>{{ w(`shop.licence.${l.kind}`) }}</strong> · {{ l.name }} · {{ l.number }}</span
      >
      <span :class="ended(l.valid_until) ? 'text-madder' : ''" class="clock">{{
        w(ended(l.valid_until) ? 'shop.licenceEnded' : 'shop.licenceUntil', { day: l.valid_until })
      }}</span>
      <button v-if="session.may('shop')" class="act act-quiet" @click="withdraw(l)">{{ w('takeBack') }}</button>
    </p>
    <p v-if="!licences.length" class="row">{{ w('shop.licenceNone') }}</p>
    <form v-if="session.may('shop')" class="row grid grid-cols-2 gap-3" @submit.prevent="add">
      <ChoiceField
        v-model="form.kind"
        :label="w('shop.licenceFor')"
        :options="optionsOf(LICENCES, k => w(`shop.licence.${k}`))"
      />
      <ChoiceField
        v-model="form.personId"
        :label="w('shop.licenceHolder')"
        :options="namedOptions(people.filter(x => x.active))"
        :error="errors.personId"
      />
      <TextField v-model="form.number" :label="w('shop.licenceNumber')" :error="errors.number" />
      <DateField v-model="form.validUntil" :label="w('shop.licenceValid')" :error="errors.validUntil" />
      <button class="act justify-self-start">{{ w('shop.licenceAdd') }}</button>
    </form>
  </section>
</template>
