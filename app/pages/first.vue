<script setup lang="ts">
definePageMeta({ layout: 'plain' })
const session = useSession()
const form = ref({
  shop: '',
  name: '',
  login: '',
  password: '',
  zone: 'Europe/Stockholm',
  currency: 'SEK',
  lengthUnit: 'mm' as 'mm' | 'in',
})
onMounted(() => {
  form.value.zone = Intl.DateTimeFormat().resolvedOptions().timeZone || form.value.zone
})
const fields = ref<Record<string, string>>({})
const error = ref('')
async function make() {
  try {
    await sendOnce('POST /api/first-owner', { body: form.value })
    await session.load()
    await navigateTo('/')
  } catch (e) {
    const p = problem(e)
    error.value = p.message
    fields.value = p.fields ?? {}
  }
}
</script>

<template>
  <form class="max-w-md mx-auto mt-10 grid gap-4" @submit.prevent="make">
    <h1>{{ w('first.title') }}</h1>
    <p>{{ w('first.why') }}</p>
    <TextField v-model="form.shop" :label="w('shop.name')" :error="fields.shop" />
    <TextField v-model="form.name" :label="w('first.name')" :error="fields.name" />
    <TextField v-model="form.login" :label="w('signIn.login')" :error="fields.login" />
    <TextField v-model="form.password" :label="w('signIn.password')" type="password" :error="fields.password" />
    <TextField v-model="form.zone" :label="w('first.zone')" :error="fields.zone" />
    <TextField v-model="form.currency" :label="w('first.currency')" :error="fields.currency" />
    <ChoiceField v-model="form.lengthUnit" :label="w('shop.unit')" :options="optionsOf(['mm', 'in'])" />
    <p v-if="error" class="verdict verdict-stop" role="alert">{{ error }}</p>
    <button class="act">{{ w('first.make') }}</button>
  </form>
</template>
