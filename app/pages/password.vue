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
</script>

<template>
  <form class="max-w-md mx-auto mt-16 grid gap-4" @submit.prevent="change">
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
</template>
