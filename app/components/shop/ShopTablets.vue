<script setup lang="ts">
/** Tablets of the shop: this device is made one, and each is renamed, moved, or taken back. */
const session = useSession()
const { dayTime } = useFormat()
const { data: tablets, load } = useLive('GET /api/tablets', topic => topic === 'shop')
const { draft, errors, submit, reset } = useForm('POST /api/tablets', () => ({ name: '', place: '' }))
type Line = NonNullable<typeof tablets.value>[number]
const changing = ref<{ id: number; rowVersion: number; name: string; place: string } | null>(null)
const can = computed(() => session.may('people'))
async function register() {
  if (!(await submit({}, { place: draft.value.place?.trim() || null }))) return
  reset()
  await Promise.all([session.load(), load()])
}
async function change() {
  const { id, rowVersion, name, place } = changing.value!
  const done = await send('PATCH /api/tablets/:id', { id, body: { rowVersion, name, place: place.trim() || null } })
  if (done) changing.value = null
  await Promise.all([session.load(), load()])
}
async function takeBack(t: Line) {
  if (!(await send('DELETE /api/tablets/:id', { id: t.id }))) return
  useNotes().show(w('tablets.gone', { name: t.name }))
  await Promise.all([session.load(), load()])
}
</script>

<template>
  <section data-test="tablets">
    <h2>{{ w('tablets.title') }}</h2>
    <p class="caption">{{ w('tablets.why') }}</p>
    <div v-for="t in tablets" :key="t.id" class="row flex flex-wrap items-center gap-3">
      <span class="grow"
        ><strong>{{ t.name }}</strong
        ><template v-if="t.place"> · {{ t.place }}</template>
        <span class="caption block">{{ w('shop.lastTouch', { at: dayTime(t.seen_at) }) }}</span>
      </span>
      <span v-if="session.tablet?.id === t.id" class="caption">{{ w('shop.here') }}</span>
      <template v-if="can">
        <button
          class="act act-quiet"
          @click="changing = { id: t.id, rowVersion: t.row_version, name: t.name, place: t.place ?? '' }"
        >
          {{ w('tablets.change') }}
        </button>
        <button class="act act-quiet" @click="takeBack(t)">{{ w('takeBack') }}</button>
      </template>
    </div>
    <p v-if="tablets && !tablets.length" class="row">{{ w('tablets.none') }}</p>
    <form v-if="can && !session.tablet" class="row grid grid-cols-2 gap-3" @submit.prevent="register">
      <TextField v-model="draft.name" :label="w('tablets.name')" :error="errors.name" />
      <TextField v-model="draft.place as string" :label="w('tablets.place')" :error="errors.place" />
      <button class="act justify-self-start">{{ w('tablets.register') }}</button>
    </form>
    <DialogBox v-if="changing" :title="w('tablets.change')" @close="changing = null">
      <form class="grid grid-cols-2 gap-3 mt-4" @submit.prevent="change">
        <TextField v-model="changing.name" :label="w('tablets.name')" />
        <TextField v-model="changing.place" :label="w('tablets.place')" />
        <button class="act">{{ w('save') }}</button>
        <button type="button" class="act act-quiet" @click="changing = null">{{ w('cancel') }}</button>
      </form>
    </DialogBox>
  </section>
</template>
