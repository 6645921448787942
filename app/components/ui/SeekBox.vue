<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'

/** Finds anything by a few letters; before a letter is typed, what was looked at last. */
const emit = defineEmits<{ close: [] }>()
type Found = AnswerOf<'GET /api/find'>[number]
const connection = useLine()
const q = ref('')
const found = ref<Found[] | null>(null)
const seen = useLocalStorage<Found[]>('hantverk-seen', [])
const KEEPS = 8
let asked = 0
/** Without a line: pieces that this device carries, by number, name or client. */
async function ofCarried(typed: string): Promise<Found[]> {
  const carried = await carriedOf('GET /api/pieces', PIECES_IN_WORK)
  const words = typed.toLowerCase().split(/\s+/)
  return ((carried?.answer ?? []) as AnswerOf<'GET /api/pieces'>)
    .filter(p => words.every(word => `${p.id} ${p.name} ${p.client_name}`.toLowerCase().includes(word)))
    .slice(0, KEEPS)
    .map(p => ({ kind: 'piece', title: p.name, also: `${p.id} · ${p.client_name}`, to: `/pieces/${p.id}` }))
}
watchDebounced(
  q,
  async typed => {
    const mine = ++asked
    const of = typed.trim()
    const answer = of ? await call('GET /api/find', { query: { q: of } }).catch(() => ofCarried(of)) : null
    if (mine === asked) found.value = answer
  },
  { debounce: 80 },
)
/** Lines under the heading of their kind. */
const groups = computed(() => {
  if (!found.value) return seen.value.length ? [{ says: w('seek.last'), list: seen.value }] : []
  const kinds = [...new Set(found.value.map(f => f.kind))]
  return kinds.map(kind => ({ says: w(`seek.kind.${kind}`), list: found.value!.filter(f => f.kind === kind) }))
})
const scanning = ref(false)
/** A label of this shop leads to its page, also one that was printed when the shop had another address. */
async function read(text: string) {
  scanning.value = false
  const path = /^https?:\/\/[^/]+(\/(?:places|mixing|pieces|lots)\/[\w%-]+)$/.exec(text)?.[1]
  if (!path) return (q.value = text.slice(0, 100))
  emit('close')
  await navigateTo(path)
}
async function go(line: Found | null) {
  if (!line) return
  seen.value = [line, ...seen.value.filter(s => s.to !== line.to || s.title !== line.title)].slice(0, KEEPS)
  emit('close')
  await navigateTo(line.to)
}
</script>

<template>
  <DialogBox :title="w('seek.title')" @close="emit('close')">
    <Combobox :model-value="null" nullable @update:model-value="go">
      <ComboboxInput
        class="field mt-3"
        :display-value="() => q"
        :placeholder="w('seek.says')"
        :aria-label="w('seek.says')"
        autocomplete="off"
        maxlength="100"
        data-test="seek"
        @change="q = $event.target.value"
      />
      <ComboboxOptions static class="mt-2 max-h-[60vh] overflow-auto">
        <template v-for="group in groups" :key="group.says">
          <li class="caption pt-3 pb-1" role="presentation">{{ group.says }}</li>
          <ComboboxOption v-for="line in group.list" :key="line.to + line.title" v-slot="{ active }" :value="line">
            <div
              class="min-h-11 px-3 py-1.5 border-t border-line leading-snug cursor-pointer"
              :class="active ? 'bg-verdigris-wash' : ''"
              data-test="found"
            >
              <span class="line-clamp-2">{{ line.title }}</span><span v-if="line.also" class="caption block truncate">{{
                line.also
              }}</span>
            </div>
          </ComboboxOption>
        </template>
      </ComboboxOptions>
    </Combobox>
    <p v-if="connection.away" class="row mt-2">{{ w('line.carriedOnly') }}</p>
    <p v-if="found && !found.length" class="row mt-2">{{ w('seek.nothing') }}</p>
    <LazyScanCode v-if="scanning" @read="read" />
    <button v-else class="act act-quiet mt-3" @click="scanning = true">{{ w('scan.open') }}</button>
  </DialogBox>
</template>
