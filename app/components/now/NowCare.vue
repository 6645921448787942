<script setup lang="ts">
/** What may burn or choke: rags that lie somewhere, cartridges that are through, rooms nobody has looked through. */
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
type Way = 'flat' | 'water' | 'gone' | 'ask'
async function say(g: Group, how: Way) {
  if (await send('PUT /api/care/rags', { body: { stepIds: g.lines.map(l => l.stepId), how } })) await load()
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
  stiff: ['gone', 'ask'],
  stiffening: ['gone', 'ask'],
  wet: ['gone', 'ask'],
}
const wayWord = (how: Way) => (how === 'ask' ? w('care.back') : w(`care.${how}`))
const unlooked = computed(() => (props.solvent ? (care.value?.unlooked ?? []) : []))
const mask = computed(() => (care.value?.mask && care.value.mask.state !== 'good' ? care.value.mask : null))
const some = computed(() => Boolean(care.value?.rags.length || unlooked.value.length || mask.value))
</script>

<template>
  <section v-if="some && care" data-test="care">
    <h2>{{ w('care.title') }}</h2>
    <div v-for="g in care.rags" :key="g.state" class="row !py-1.5" :data-rags="g.state">
      <p :class="{ 'text-madder font-semibold': g.state === 'ask' }">
        {{ w(`care.${g.state}`, { what: named(g), until: g.safe_ms ? dayTime(g.safe_ms) : '' }) }}
      </p>
      <p v-if="can" class="flex flex-wrap gap-2 mt-1">
        <button v-for="how in WAYS[g.state]" :key="how" class="chip" @click="say(g, how)">{{ wayWord(how) }}</button>
        <WhyNote v-if="g.state === 'ask'" :label="w('plan.whence')">{{ w('care.ragsWhy') }}</WhyNote>
      </p>
    </div>
    <p v-for="r in unlooked" :key="r.id" class="row !py-1.5 flex flex-wrap items-center gap-3" data-test="unlooked">
      <span class="grow">{{ w('care.looked', { room: r.name }) }}</span>
      <button v-if="can" class="chip" @click="looked(r.id)">{{ w('care.lookedYes') }}</button>
    </p>
    <p v-if="mask" class="row !py-1.5" :class="mask.state === 'over' ? 'text-madder font-semibold' : 'text-ochre'">
      <template v-if="mask.state === 'over'">{{ w('care.maskOver') }}</template>
      <template v-else>{{ w('care.maskSoon', { left: hours(mask.left_h * 60), day: day(mask.until_ms) }) }}</template>
      <NuxtLink to="/store?part=air" class="underline min-h-11 inline-flex items-center ml-2">{{
        w('care.newOnes')
      }}</NuxtLink>
    </p>
  </section>
</template>
