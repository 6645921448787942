<script setup lang="ts">
import { useI18n } from 'vue-i18n'

definePageMeta({ layout: 'plain' })
const session = useSession()
const { t } = useI18n()
const form = ref({ before: '', password: '' })
const error = ref('')
const field = ref('')
const busy = ref(false)
async function change() {
  busy.value = true
  error.value = field.value = ''
  try {
    await sendOnce('PUT', '/api/session/password', form.value)
    await session.load()
    useNotes().show(t('password.done'))
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
    <h1>{{ $t('password.title') }}</h1>
    <p v-if="session.person?.mustChange" class="verdict">{{ $t('password.mustChoose') }}</p>
    <TextField
      v-model="form.before"
      :label="$t('password.before')"
      type="password"
      required
      autocomplete="current-password"
    />
    <TextField
      v-model="form.password"
      :label="$t('password.fresh')"
      type="password"
      required
      :error="field"
      autocomplete="new-password"
    />
    <p class="caption">{{ $t('password.why') }}</p>
    <p v-if="error" class="verdict verdict-stop" role="alert">{{ error }}</p>
    <button class="act" :disabled="busy">{{ $t('password.change') }}</button>
    <NuxtLink v-if="!session.person?.mustChange" to="/" class="underline min-h-11 py-2">{{ $t('cancel') }}</NuxtLink>
  </form>
</template>
