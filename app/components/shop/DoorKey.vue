<script setup lang="ts">
/** The key to a name on a tablet of the shop: a PIN by big keys, or the password. */
const props = defineProps<{ who: { id: number; name: string; login: string; pin: boolean } }>()
const emit = defineEmits<{ inside: []; back: [] }>()
const byPin = ref(props.who.pin)
const pin = ref('')
const password = ref('')
const error = ref('')
const busy = ref(false)
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const
const LONGEST = 8
const press = (figure: string) => {
  if (pin.value.length < LONGEST) pin.value += figure
}
const form = useTemplateRef<HTMLFormElement>('form')
// below alarms, the keys are not in sight on a phone
onMounted(() => form.value?.scrollIntoView({ block: 'nearest' }))
async function enter() {
  busy.value = true
  error.value = ''
  try {
    if (byPin.value) await sendOnce('POST /api/session/tap', { body: { personId: props.who.id, pin: pin.value } })
    else await sendOnce('POST /api/session', { body: { login: props.who.login, password: password.value } })
    emit('inside')
  } catch (e) {
    const { code, message } = problem(e)
    error.value = message
    pin.value = ''
    if (code === 'pin-shut' || code === 'no-pin') byPin.value = false
  }
  busy.value = false
}
</script>

<template>
  <form ref="form" class="grid gap-3 max-w-sm" data-test="key" @submit.prevent="enter">
    <p class="text-2xl font-semibold">{{ who.name }}</p>
    <template v-if="byPin">
      <TextField v-model="pin" :label="w('door.pin')" type="password" autocomplete="off" :error="error" />
      <div class="grid grid-cols-3 gap-2">
        <button
          v-for="k in KEYS"
          :key="k"
          type="button"
          class="act act-quiet !min-h-16 text-2xl clock"
          @click="press(k)"
        >
          {{ k }}
        </button>
        <button type="button" class="act act-quiet !min-h-16" :disabled="!pin" @click="pin = pin.slice(0, -1)">
          {{ w('door.rub') }}
        </button>
        <button type="button" class="act act-quiet !min-h-16 text-2xl clock" @click="press('0')">0</button>
        <button class="act !min-h-16" :disabled="busy || pin.length < 4">{{ w('door.in') }}</button>
      </div>
      <button type="button" class="underline min-h-11 justify-self-start" @click="byPin = false">
        {{ w('door.byPassword') }}
      </button>
    </template>
    <template v-else>
      <TextField
        v-model="password"
        :label="w('signIn.password')"
        type="password"
        required
        :error="error"
        autocomplete="current-password"
      />
      <p v-if="!who.pin" class="caption">{{ w('door.noPin') }}</p>
      <button class="act" :disabled="busy">{{ w('signIn.enter') }}</button>
    </template>
    <button type="button" class="underline min-h-11 justify-self-start" @click="emit('back')">
      {{ w('door.another') }}
    </button>
  </form>
</template>
