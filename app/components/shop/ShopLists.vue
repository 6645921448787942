<script setup lang="ts">
/** Every list of the shop, to be taken out as CSV. */
const session = useSession()
const LISTS = [
  ...(['pieces', 'clients', 'faces', 'findings', 'tests', 'moisture', 'steps', 'spells', 'log', 'faults'] as const),
  ...(['products', 'lots', 'uses', 'moves', 'recipes', 'pots', 'climate'] as const),
]
const MONEY = ['prices', 'materials', 'answers', 'quotations'] as const
const lists = computed(() => [...LISTS, ...(session.may('see-prices') ? MONEY : [])])
const comma = ref(false)
const busy = ref(false)
const sum = (of: Record<string, number>) => Object.values(of).reduce((n, x) => n + x, 0)
async function readArchive(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  busy.value = true
  const read = await send('POST /api/archive', { body: new Blob([file], { type: 'application/zip' }) })
  busy.value = false
  input.value = ''
  if (read) useNotes().show(w('lists.archiveDone', { added: sum(read.added), known: sum(read.known) }))
}
</script>

<template>
  <section data-test="lists">
    <h2>{{ w('lists.title') }}</h2>
    <p class="caption">{{ w('lists.why') }}</p>
    <SwitchField v-model="comma" :label="w('lists.comma')" />
    <ul class="grid grid-cols-2 gap-x-4">
      <li v-for="l in lists" :key="l">
        <a
          class="underline min-h-11 inline-flex items-center"
          :href="`/api/lists/${l}?decimal=${comma ? 'comma' : 'point'}`"
          >{{ w(`lists.of.${l}`) }}</a
        >
      </li>
      <li v-if="session.may('take-in')">
        <a class="underline min-h-11 inline-flex items-center" href="/api/clients/cards">{{ w('lists.cards') }}</a>
      </li>
    </ul>
    <ReadIn v-if="session.may('take-in')" list="clients" />
    <template v-if="session.person?.role === 'owner'">
      <a class="underline min-h-11 inline-flex items-center" href="/api/archive">{{ w('lists.archive') }}</a>
      <label class="block mt-2" data-test="archive-in"
        >{{ w('lists.archiveIn') }}
        <input type="file" accept=".zip,application/zip" class="field" :disabled="busy" @change="readArchive"
      /></label>
      <p v-if="busy" role="status">{{ w('lists.archiveBusy') }}</p>
      <p class="caption">{{ w('lists.archiveWhy') }}</p>
    </template>
  </section>
</template>
