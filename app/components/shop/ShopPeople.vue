<script setup lang="ts">
import { ROLES, type Role } from '#shared/api'

/** The people of the shop; the owner takes in, lets go, and gives a one-time password. */
type Row = { id: number; name: string; login: string; role: Role; active: boolean; rowVersion: number }
defineProps<{ people: readonly Row[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const blank = () => ({ name: '', login: '', role: 'finisher', password: '' })
const person = ref(blank())
const oneTime = ref<{ name: string; word: string; hours: number } | null>(null)
async function add() {
  if (await send('POST', '/api/people', person.value)) person.value = blank()
  emit('changed')
}
async function change(p: Row, more: object) {
  await send('PATCH', `/api/people/${p.id}`, { rowVersion: p.rowVersion, ...more })
  emit('changed')
}
async function reset(p: Row) {
  const made = await send<{ oneTime: string; hours: number }>('POST', `/api/people/${p.id}/password`, {
    rowVersion: p.rowVersion,
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
      <template v-if="session.may('owner') && !mine(p)">
        <select
          :value="p.role"
          class="field !w-36"
          :aria-label="w('shop.role')"
          @change="change(p, { role: ($event.target as HTMLSelectElement).value })"
        >
          <option v-for="r in ROLES" :key="r" :value="r">{{ w(`role.${r}`) }}</option>
        </select>
        <button v-if="p.active" class="act act-quiet" @click="reset(p)">{{ w('shop.oneTime') }}</button>
        <button class="act act-quiet" @click="change(p, { active: !p.active })">
          {{ p.active ? w('shop.letGo') : w('shop.takeBack') }}
        </button>
      </template>
      <template v-else>
        <span>{{ w(`role.${p.role}`) }}</span>
        <NuxtLink v-if="mine(p)" to="/password" class="act act-quiet no-underline">{{ w('password.title') }}</NuxtLink>
      </template>
    </div>
    <form v-if="session.may('owner')" class="row grid grid-cols-2 gap-3" @submit.prevent="add">
      <TextField v-model="person.name" :label="w('shop.personName')" />
      <TextField v-model="person.login" :label="w('signIn.login')" autocomplete="off" />
      <TextField v-model="person.password" :label="w('signIn.password')" type="password" autocomplete="new-password" />
      <label
        >{{ w('shop.role') }}
        <select v-model="person.role" class="field">
          <option v-for="r in ROLES" :key="r" :value="r">{{ w(`role.${r}`) }}</option>
        </select></label
      >
      <button class="act">{{ w('shop.addPerson') }}</button>
    </form>
  </section>
</template>
