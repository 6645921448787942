<script setup lang="ts">
/** Asks who is signed in for the password, for what wants it fresh. */
const proof = useProof()
const session = useSession()
const password = ref('')
const error = ref('')
const busy = ref(false)
async function give() {
  busy.value = true
  error.value = ''
  try {
    await sendOnce('POST /api/session/proof', { body: { password: password.value } })
    proof.settle(true)
  } catch (e) {
    error.value = problem(e).message
  }
  busy.value = false
}
</script>

<template>
  <DialogBox :title="w('proof.title', { name: session.person?.name ?? '' })" @close="proof.settle(false)">
    <form class="grid gap-4 mt-3" data-test="proof" @submit.prevent="give">
      <p>{{ w('proof.why') }}</p>
      <TextField
        v-model="password"
        :label="w('signIn.password')"
        type="password"
        required
        :error="error"
        autocomplete="current-password"
      />
      <div class="flex gap-3">
        <button class="act" :disabled="busy">{{ w('proof.go') }}</button>
        <button type="button" class="act act-quiet" @click="proof.settle(false)">{{ w('cancel') }}</button>
      </div>
    </form>
  </DialogBox>
</template>
