<script setup lang="ts">
/** One line that opens. What may burn or choke: rags that lie somewhere, cartridges, rooms nobody looked through. */
const props = defineProps<{ solvent: boolean }>()
const session = useSession()
const { dayTime, day, hours } = useFormat()
const { data: care, load } = useLive('GET /api/care', topic => ['piece', 'air', 'shop'].includes(topic))
const can = computed(() => session.may('work'))
type Group = NonNullable<typeof care.value>['rags'][number]
const MOST = 3
const named = (g: Group) => {
  const names = [...new Set(g.lines.map(l => `${l.pieceId} ${l.title}`))]
  return names.length > MOST ? `${names.slice(0, MOST).join(', ')} …` : names.join(', ')
}
type Way = 'flat' | 'water' | 'gone'
/** What was said of rags before, to be said again after a mis-tap; times are counted from then. */
const BEFORE: Record<Group['state'], Way | 'ask'> = { ask: 'ask', stiff: 'flat', stiffening: 'flat', wet: 'water' }
async function say({ lines, state }: Group, how: Way) {
  const tell = (word: Way | 'ask') =>
    send('PUT /api/care/rags', { body: { stepIds: lines.map(l => l.stepId), how: word } })
  if (!(await tell(how))) return
  useNotes().show(w(`care.said.${how}`), 'done', async () => {
    if (await tell(BEFORE[state])) await load()
  })
  await load()
}
async function looked(roomId: number) {
  if (!(await send('PUT /api/care/looked', { body: { roomId } }))) return
  useNotes().show(w('care.lookedYes'), 'done', async () => {
    if (await send('PUT /api/care/looked', { body: { roomId, undo: true } })) await load()
  })
  await load()
}
const WAYS: Record<Group['state'], readonly Way[]> = {
  ask: ['flat', 'water', 'gone'],
  stiff: ['gone', 'water'],
  stiffening: ['water', 'gone'],
  wet: ['flat', 'gone'],
}
const unlooked = computed(() => (props.solvent ? (care.value?.unlooked ?? []) : []))
const mask = computed(() => (care.value?.mask && care.value.mask.state !== 'good' ? care.value.mask : null))
const maskSays = (m: NonNullable<typeof mask.value>) =>
  m.state === 'over' ? w('care.maskOver') : w('care.maskSoon', { left: hours(m.left_h * 60), day: day(m.until_ms) })
const has = (state: Group['state']) => Boolean(care.value?.rags.some(g => g.state === state))
/** What cannot wait stands first, and in red. */
const burning = computed(() => has('ask') || mask.value?.state === 'over')
const summary = computed(() =>
  [
    has('ask') && w('care.short.ask'),
    mask.value && w(`care.short.${mask.value.state as 'over'}`),
    ...unlooked.value.map(r => w('care.short.looked', { room: r.name })),
    has('stiff') && w('care.short.stiff'),
    has('stiffening') && w('care.short.lie'),
    has('wet') && w('care.short.wet'),
  ]
    .filter(Boolean)
    .join(' · '),
)
const some = computed(() => Boolean(care.value?.rags.length || unlooked.value.length || mask.value))
</script>

<template>
  <FoldOut v-if="some && care" class="mb-3 max-w-5xl" data-test="care">
    <template #title
      ><span class="underline" :class="{ 'text-madder font-semibold': burning }">{{ summary }}</span></template
    >
    <div
      v-for="g in care.rags"
      :key="g.state"
      class="row !py-1.5 flex flex-wrap items-center gap-2"
      :data-rags="g.state"
    >
      <p class="grow basis-72">
        {{ w(`care.${g.state}`, { what: named(g), until: g.safe_ms ? dayTime(g.safe_ms) : '' }) }}
      </p>
      <template v-if="can">
        <button v-for="how in WAYS[g.state]" :key="how" class="chip" @click="say(g, how)">
          {{ w(`care.${how}`) }}
        </button>
      </template>
    </div>
    <p v-for="r in unlooked" :key="r.id" class="row !py-1.5 flex flex-wrap items-center gap-2" data-test="unlooked">
      <span class="grow basis-72">{{ w('care.looked', { room: r.name }) }}</span>
      <button v-if="can" class="chip" @click="looked(r.id)">{{ w('care.lookedYes') }}</button>
    </p>
    <p v-if="mask" class="row !py-1.5 flex flex-wrap items-center gap-2">
      <span class="grow basis-72">{{ maskSays(mask) }}</span>
      <NuxtLink to="/store?part=air" class="chip inline-flex items-center">{{ w('care.newOnes') }}</NuxtLink>
    </p>
    <WhyNote :label="w('care.why')">{{ w('care.ragsWhy') }}</WhyNote>
  </FoldOut>
</template>
