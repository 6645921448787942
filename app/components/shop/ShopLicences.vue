<script setup lang="ts">
import { type LicenceKind, LICENCES } from '#core/safety'

/** Licences that lift what is otherwise forbidden: who holds it, its number, until when. */
interface Licence {
  id: number
  name: string
  kind: LicenceKind
  number: string
  valid_until: string
}
defineProps<{ licences: readonly Licence[]; people: readonly { id: number; name: string; active: boolean }[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const clock = useClock()
const blank = () => ({ personId: 0, kind: 'isocyanates' as LicenceKind, number: '', validUntil: '' })
const form = ref(blank())
const ended = (day: string) => day < new Date(clock.now).toISOString().slice(0, 10)
async function add() {
  if (!(await send('POST', '/api/licences', form.value))) return
  form.value = blank()
  emit('changed')
}
async function withdraw(id: number) {
  if (await send('DELETE', `/api/licences/${id}`)) emit('changed')
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
      <button v-if="session.may('owner')" class="act act-quiet" @click="withdraw(l.id)">{{ w('takeBack') }}</button>
    </p>
    <p v-if="!licences.length" class="row">{{ w('shop.licenceNone') }}</p>
    <form v-if="session.may('owner')" class="row grid grid-cols-2 gap-3" @submit.prevent="add">
      <label
        >{{ w('shop.licenceFor') }}
        <select v-model="form.kind" class="field">
          <option v-for="k in LICENCES" :key="k" :value="k">{{ w(`shop.licence.${k}`) }}</option>
        </select></label
      >
      <label
        >{{ w('shop.licenceHolder') }}
        <select v-model.number="form.personId" class="field" required>
          <option v-for="p in people.filter(x => x.active)" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select></label
      >
      <TextField v-model="form.number" :label="w('shop.licenceNumber')" required />
      <label>{{ w('shop.licenceValid') }} <input v-model="form.validUntil" type="date" class="field" required /></label>
      <button class="act justify-self-start" :disabled="!form.personId">{{ w('shop.licenceAdd') }}</button>
    </form>
  </section>
</template>
