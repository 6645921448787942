<script setup lang="ts">
/** Clients that the shop knows, while a name is typed; one touch takes the record. */
const client = defineModel<{ id?: number | null; name: string; email: string; phone?: string }>({ required: true })
const found = shallowRef<AnswerOf<'GET /api/clients'>>([])
const LEAST = 2
async function seek(name: string) {
  const find = name.trim()
  if (client.value.id || find.length < LEAST) found.value = []
  else found.value = await call('GET /api/clients', { query: { find } }).catch(() => [])
}
watchDebounced(() => client.value.name, seek, { debounce: 250 })
function take(c: (typeof found.value)[number]) {
  client.value = { id: c.id, name: c.name, email: c.email, phone: c.phone }
  found.value = []
}
const other = () => (client.value = { ...client.value, id: null })
</script>

<template>
  <div v-if="found.length || client.id" class="flex flex-wrap gap-2 items-center" data-test="known-clients">
    <template v-if="client.id">
      <span>{{ w('client.known') }}</span>
      <button type="button" class="underline min-h-11" @click="other">{{ w('client.another') }}</button>
    </template>
    <button v-for="c in found" v-else :key="c.id" type="button" class="chip" @click="take(c)">
      {{ [c.name, c.phone || c.email].filter(Boolean).join(' · ') }}
    </button>
  </div>
</template>
