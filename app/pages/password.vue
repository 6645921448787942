<script setup lang="ts">
definePageMeta({ layout: 'plain' })
const session = useSession()
const form = ref({ before: '', password: '' })
const error = ref('')
const field = ref('')
const busy = ref(false)
async function change() {
  busy.value = true
  error.value = field.value = ''
  try {
    await sendOnce('PUT /api/session/password', { body: form.value })
    await session.load()
    useNotes().show(w('password.done'))
    await navigateTo('/')
  } catch (e) {
    const p = problem(e)
    field.value = p.fields?.password ?? ''
    error.value = field.value ? '' : p.message
  }
  busy.value = false
}
const { draft: own, errors, submit, reset } = useForm('PUT /api/session/pin', () => ({ password: '', pin: '' }))
async function choosePin() {
  if (!(await submit({}))) return
  reset()
  useNotes().show(w('password.pinDone'))
}
</script>

<template>
  <div class="grid md:grid-cols-2 gap-10 mt-10">
    <form class="grid gap-4 content-start" @submit.prevent="change">
      <h1>{{ w('password.title') }}</h1>
      <p v-if="session.person?.mustChange" class="verdict">{{ w('password.mustChoose') }}</p>
      <TextField
        v-model="form.before"
        :label="w('password.before')"
        type="password"
        required
        autocomplete="current-password"
      />
      <TextField
        v-model="form.password"
        :label="w('password.fresh')"
        type="password"
        required
        :error="field"
        autocomplete="new-password"
      />
      <p class="caption">{{ w('password.why') }}</p>
      <p v-if="error" class="verdict verdict-stop" role="alert">{{ error }}</p>
      <button class="act" :disabled="busy">{{ w('password.change') }}</button>
      <NuxtLink v-if="!session.person?.mustChange" to="/" class="underline min-h-11 py-2">{{ w('cancel') }}</NuxtLink>
    </form>
    <form v-if="!session.person?.mustChange" class="grid gap-4 content-start" @submit.prevent="choosePin">
      <h2>{{ w('password.pin') }}</h2>
      <p class="caption">{{ w('password.pinWhy') }}</p>
      <TextField
        v-model="own.password"
        :label="w('password.before')"
        type="password"
        :error="errors.password"
        autocomplete="current-password"
      />
      <TextField v-model="own.pin" :label="w('door.pin')" type="password" :error="errors.pin" autocomplete="off" />
      <button class="act justify-self-start">{{ w('password.pinChoose') }}</button>
    </form>
  </div>
</template>
