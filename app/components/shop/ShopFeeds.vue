<script setup lang="ts">
/** Calendars to be read by other programs: made for a person, a room or promised days, and taken back. */
const props = defineProps<{ people: { id: number; name: string }[]; rooms: { id: number; name: string }[] }>()
const session = useSession()
const { day } = useFormat()
const { data: feeds, load } = useLive('GET /api/feeds', topic => topic === 'shop')
const options = computed(() => {
  const me = session.person?.id
  const people = session.may('shop') ? props.people : props.people.filter(p => p.id === me)
  const rooms = session.may('shop') ? props.rooms : []
  return [
    ...people.map(p => ({ value: `person ${p.id}`, label: w('rooms.feedOf.person', { name: p.name }) })),
    ...rooms.map(r => ({ value: `room ${r.id}`, label: w('rooms.feedOf.room', { name: r.name }) })),
    ...(session.may('shop') ? [{ value: 'promised', label: w('rooms.feedOf.promised') }] : []),
  ]
})
const chosen = ref<string | null>(null)
watch(options, all => (chosen.value ??= all[0]?.value ?? null), { immediate: true })
const address = ref('')
async function make() {
  const [kind, id] = (chosen.value ?? '').split(' ')
  const body =
    kind === 'person'
      ? { kind: 'person' as const, personId: Number(id) }
      : ({ kind: 'room', roomId: Number(id) } as const)
  const made = await send('POST /api/feeds', { body: kind === 'promised' ? { kind: 'promised' } : body })
  if (!made) return
  address.value = made.address
  await load()
}
async function drop(id: number) {
  if (await send('DELETE /api/feeds/:id', { id })) await load()
}
const nameOf = (f: NonNullable<typeof feeds.value>[number]) =>
  f.kind === 'promised' ? w('rooms.feedOf.promised') : w(`rooms.feedOf.${f.kind}`, { name: f.person ?? f.room ?? '' })
</script>

<template>
  <section v-if="options.length" data-test="feeds">
    <h2>{{ w('rooms.feeds') }}</h2>
    <p class="caption">{{ w('rooms.feedsWhy') }}</p>
    <div v-for="f in feeds ?? []" :key="f.id" class="row flex items-center gap-3">
      <span class="grow"
        >{{ nameOf(f)
        }}<span class="caption block">{{
          f.read_at ? w('rooms.feedRead', { day: day(f.read_at) }) : w('rooms.feedUnread')
        }}</span></span
      >
      <button class="act act-quiet" @click="drop(f.id)">{{ w('rooms.feedDrop') }}</button>
    </div>
    <form class="flex flex-wrap items-end gap-3 mt-3" @submit.prevent="make">
      <ChoiceField v-model="chosen" class="grow" :label="w('rooms.feedWhat')" :options="options" />
      <button class="act" :disabled="!chosen">{{ w('rooms.feedMake') }}</button>
    </form>
    <p v-if="address" class="verdict mt-3 break-all" data-test="feed-address">
      <span class="caption block">{{ w('rooms.feedOnce') }}</span>{{ address }}
    </p>
  </section>
</template>
