<script setup lang="ts">
import { type Role, ROLES } from '#shared/rights'

/** The people of the shop; the owner takes in, lets go, and gives a one-time password. */
type Row = { id: number; name: string; login: string; role: Role; active: boolean; rowVersion: number }
defineProps<{ people: readonly Row[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const {
  draft: person,
  errors,
  submit,
  reset: clear,
} = useForm('POST /api/people', () => ({
  name: '',
  login: '',
  role: 'finisher',
  password: '',
}))
const oneTime = ref<{ name: string; word: string; hours: number } | null>(null)
async function add() {
  if (!(await submit({}))) return
  clear()
  emit('changed')
}
async function change(p: Row, more: Partial<BodyOf<'PATCH /api/people/:id'>>) {
  const done = await send('PATCH /api/people/:id', { id: p.id, body: { rowVersion: p.rowVersion, ...more } })
  emit('changed')
  return done
}
async function letGo(p: Row) {
  if (!(await change(p, { active: false }))) return
  useNotes().show(w('shop.isGone', { name: p.name }), 'done', async () =>
    change({ ...p, rowVersion: p.rowVersion + 1 }, { active: true }),
  )
}
async function reset(p: Row) {
  const made = await send('POST /api/people/:id/password', {
    id: p.id,
    body: {
      rowVersion: p.rowVersion,
    },
  })
  oneTime.value = made && { name: p.name, word: made.oneTime, hours: made.hours }
  emit('changed')
}
const mine = (p: Row) => p.id === session.person?.id
</script>

<template>
  <section data-test="people">
    <h2>{{ w('shop.people') }}</h2>
    <p v-if="oneTime" class="verdict text-lg my-2" role="status" data-test="one-time">
      {{ w('shop.oneTimeIs', oneTime) }}
      <button class="act act-quiet" @click="oneTime = null">{{ w('close') }}</button>
    </p>
    <div
      v-for="p in people"
      :key="p.id"
      class="row flex flex-wrap items-center gap-3"
      :class="p.active ? '' : 'text-soft line-through'"
    >
      <span class="grow"
        ><strong>{{ p.name }}</strong
        ><span class="caption block">{{ p.login }}</span></span
      >
      <template v-if="session.may('people') && !mine(p)">
        <ChoiceField
          :model-value="p.role"
          :label="w('shop.role')"
          label-hidden
          :options="optionsOf(ROLES, r => w(`role.${r}`))"
          class="w-36"
          @update:model-value="change(p, { role: $event })"
        />
        <button v-if="p.active" class="act act-quiet" @click="reset(p)">{{ w('shop.oneTime') }}</button>
        <button class="act act-quiet" @click="p.active ? letGo(p) : change(p, { active: true })">
          {{ p.active ? w('shop.letGo') : w('shop.takeBack') }}
        </button>
      </template>
      <template v-else>
        <span>{{ w(`role.${p.role}`) }}</span>
        <NuxtLink v-if="mine(p)" to="/password" class="act act-quiet no-underline">{{ w('shop.ownKeys') }}</NuxtLink>
      </template>
    </div>
    <form v-if="session.may('people')" class="row grid grid-cols-2 gap-3" @submit.prevent="add">
      <TextField v-model="person.name" :label="w('shop.personName')" :error="errors.name" />
      <TextField v-model="person.login" :label="w('signIn.login')" :error="errors.login" autocomplete="off" />
      <TextField
        v-model="person.password"
        :label="w('signIn.password')"
        :error="errors.password"
        type="password"
        autocomplete="new-password"
      />
      <ChoiceField v-model="person.role" :label="w('shop.role')" :options="optionsOf(ROLES, r => w(`role.${r}`))" />
      <button class="act">{{ w('shop.addPerson') }}</button>
    </form>
  </section>
</template>
