<script setup lang="ts">
/** A client: contact, pieces, letters, and a second record of the same person. */
const route = useRoute()
const id = computed(() => Number(route.params.id))
const session = useSession()
const { day, dayTime } = useFormat()
const {
  data: page,
  failed,
  load,
} = useLive(
  'GET /api/clients/:id',
  topic => topic === 'pieces',
  () => ({ id: id.value }),
)
// a record that was merged away leads to the one that stays
watch(page, p => {
  if (p && p.client.id !== id.value) void navigateTo(`/clients/${p.client.id}`, { replace: true })
})
const can = computed(() => session.may('take-in') && !page.value?.client.erased_at)
const changing = ref(false)
const { draft, errors, submit } = useForm('PATCH /api/clients/:id', () => ({
  rowVersion: 1,
  name: '',
  email: '',
  phone: '',
}))
function change() {
  const { name, email, phone, rowVersion } = page.value!.client
  draft.value = { name, email, phone, rowVersion }
  changing.value = true
}
async function save() {
  if (!(await submit({ id: id.value }))) return
  changing.value = false
  await load()
}
const erasing = ref(false)
async function erase() {
  const { rowVersion } = page.value!.client
  if (!(await send('POST /api/clients/:id/erase', { id: id.value, body: { rowVersion } }))) return
  erasing.value = false
  useNotes().show(w('client.erased'))
  await load()
}
const KEPT = ['questions', 'letters', 'quotations', 'signatures'] as const
const same = ref<{ id: number; name: string } | null>(null)
async function merge() {
  const { rowVersion } = page.value!.client
  const done = await send('POST /api/clients/:id/merge', { id: id.value, body: { rowVersion, into: same.value!.id } })
  if (!done) return
  useNotes().show(w('client.merged', { name: same.value!.name }))
  same.value = null
  await navigateTo(`/clients/${done.id}`)
}
</script>

<template>
  <div v-if="page" class="max-w-5xl">
    <div class="flex flex-wrap items-baseline gap-4">
      <h1 class="grow">{{ page.client.name }}</h1>
      <button v-if="can && !changing" class="act act-quiet" @click="change">{{ w('client.change') }}</button>
    </div>
    <p v-if="!changing" class="text-lg">
      <template v-if="page.client.erased_at">{{ w('client.isErased', { day: day(page.client.erased_at) }) }}</template>
      <template v-else>{{
        [page.client.phone, page.client.email].filter(Boolean).join(' · ') || w('client.noContact')
      }}</template>
    </p>
    <form v-else class="grid sm:grid-cols-3 gap-3 mt-3" @submit.prevent="save">
      <TextField v-model="draft.name" :label="w('intake.client')" :error="errors.name" />
      <TextField v-model="draft.email" :label="w('intake.email')" type="email" :error="errors.email" />
      <TextField v-model="draft.phone as string" :label="w('intake.phone')" :error="errors.phone" />
      <div class="flex gap-3">
        <button class="act">{{ w('save') }}</button>
        <button type="button" class="act act-quiet" @click="changing = false">{{ w('cancel') }}</button>
      </div>
    </form>
    <section v-if="can && page.alike.length" class="mt-5" data-test="alike">
      <h2>{{ w('client.alike') }}</h2>
      <p v-for="c in page.alike" :key="c.id" class="row flex flex-wrap items-center gap-3">
        <NuxtLink :to="`/clients/${c.id}`" class="grow min-h-11 inline-flex items-center">{{
          [c.name, c.phone, c.email].filter(Boolean).join(' · ')
        }}</NuxtLink>
        <button class="act act-quiet" @click="same = c">{{ w('client.same') }}</button>
      </p>
    </section>
    <div class="grid lg:grid-cols-2 gap-10 mt-6">
      <section data-test="pieces">
        <h2>{{ w('rail.pieces') }}</h2>
        <NuxtLink v-for="p in page.pieces" :key="p.id" :to="`/pieces/${p.id}`" class="row block no-underline">
          <strong>{{ p.id }} {{ p.name }}</strong>
          <span class="caption block">{{
            p.handed_over_at
              ? w('client.homeOn', { day: day(p.handed_over_at) })
              : p.due_on
                ? w('piece.due', { day: day(p.due_on) })
                : w('client.since', { day: day(p.taken_in_at) })
          }}</span>
        </NuxtLink>
        <p v-if="!page.pieces.length" class="row">{{ w('client.noPieces') }}</p>
      </section>
      <section data-test="letters">
        <h2>{{ w('client.letters') }}</h2>
        <NuxtLink
          v-for="l in page.letters"
          :key="l.id"
          :to="`/pieces/${l.piece_id}/client`"
          class="row block no-underline"
        >
          <strong>{{ w(`client.letter.${l.kind}`) }}</strong>, {{ l.piece_id }} {{ l.piece }}
          <span class="caption block"
            >{{ l.recipient }}<template v-if="l.at"> · {{ dayTime(l.at) }}</template></span
          >
          <span v-if="l.says" class="block">{{ l.says }}</span>
        </NuxtLink>
        <p v-if="!page.letters.length" class="row">{{ w('client.noLetters') }}</p>
      </section>
    </div>
    <section v-if="can" class="mt-8 max-w-2xl" data-test="kept">
      <h2>{{ w('client.kept') }}</h2>
      <p class="row">{{ w('client.keptContact') }}</p>
      <p v-for="k in KEPT.filter(x => page!.kept[x] > 0)" :key="k" class="row">
        {{ w(`client.keptOf.${k}`, { n: page.kept[k] }) }}
      </p>
      <p class="flex flex-wrap gap-x-6 mt-2">
        <a class="underline min-h-11 inline-flex items-center" :href="`/api/clients/${page.client.id}/data`">{{
          w('client.keptFile')
        }}</a>
        <button v-if="session.person?.role === 'owner'" class="underline min-h-11" @click="erasing = true">
          {{ w('client.erase') }}
        </button>
      </p>
    </section>
    <DialogBox v-if="erasing" :title="w('client.eraseTitle', { name: page.client.name })" @close="erasing = false">
      <p class="mt-3">{{ w('client.eraseWhy') }}</p>
      <div class="flex gap-3 mt-5">
        <button class="act" @click="erase">{{ w('client.erase') }}</button>
        <button class="act act-quiet" @click="erasing = false">{{ w('cancel') }}</button>
      </div>
    </DialogBox>
    <DialogBox v-if="same" :title="w('client.mergeTitle', { name: same.name })" @close="same = null">
      <p class="mt-3">{{ w('client.mergeWhy', { from: page.client.name, into: same.name }) }}</p>
      <div class="flex gap-3 mt-5">
        <button class="act" @click="merge">{{ w('client.merge') }}</button>
        <button class="act act-quiet" @click="same = null">{{ w('cancel') }}</button>
      </div>
    </DialogBox>
  </div>
  <PageState v-else :failed="failed" />
</template>
