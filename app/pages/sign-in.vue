<script setup lang="ts">
definePageMeta({ layout: 'plain' })
const session = useSession()
const form = ref({ login: '', password: '' })
const error = ref('')
const busy = ref(false)
async function enter() {
  busy.value = true
  error.value = ''
  try {
    await sendOnce('POST /api/session', { body: form.value })
    await session.load()
    await navigateTo(session.whereLeft())
  } catch (e) {
    error.value = problem(e).message
  }
  busy.value = false
}
</script>

<template>
  <form class="max-w-md mx-auto mt-16 grid gap-4" @submit.prevent="enter">
    <h1>{{ session.shop?.name ?? 'Hantverk' }}</h1>
    <TextField v-model="form.login" :label="w('signIn.login')" required />
    <TextField v-model="form.password" :label="w('signIn.password')" type="password" required />
    <p v-if="error" class="verdict verdict-stop" role="alert">{{ error }}</p>
    <button class="act" :disabled="busy">{{ w('signIn.enter') }}</button>
    <p v-if="session.mode === 'demo'" class="caption">{{ w('signIn.demo') }}</p>
  </form>
</template>
