<script setup lang="ts">
/** Where work is done, what it allows, and on which racks wet faces lie. */
type Room = AnswerOf<'GET /api/rooms'>['rooms'][number]
const props = defineProps<{ rooms: readonly Room[]; loggers: readonly string[] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const changing = ref<Room | 'new' | null>(null)
const may = computed(() => session.may('shop'))
const WORK = ['dust', 'wet', 'other'] as const
const allows = (r: Room) =>
  WORK.filter(what => r[what])
    .map(what => w(`rooms.work.${what}`))
    .join(', ') || w('rooms.nothing')
/** Work for which no room is. */
const missing = computed(() => WORK.filter(what => !props.rooms.some(r => r[what] && !(what === 'wet' && r.outdoors))))
const { airOf } = useRoomAir()
/** A length as it was typed; a bare number is in the shop's unit. */
const longUp = (typed: string) =>
  w('rooms.longUp', { length: /[a-z"'″′]/i.test(typed) ? typed : `${typed} ${session.shop?.length_unit ?? 'mm'}` })
const facts = (r: Room) =>
  [
    r.outdoors && w('rooms.outdoors'),
    r.dust && r.wet && w('rooms.change', { n: r.changeOverMin }),
    r.oneAtATime && w('rooms.one'),
    r.length && longUp(r.length),
    r.volume_m3 && w('rooms.volume', { n: r.volume_m3 }),
    r.airChanges_h && w('rooms.air', { n: r.airChanges_h }),
    r.air && airOf(r.air.now, r.air.rain),
  ]
    .filter(Boolean)
    .join(' · ')
async function remove(r: Room) {
  const { id, racks, rowVersion: _, air: _air, ...body } = r
  if (!(await send('DELETE /api/rooms/:id', { id }))) return
  emit('changed')
  useNotes().show(w('rooms.gone', { name: r.name }), 'done', async () => {
    const made = await send('POST /api/rooms', { body })
    for (const rack of made ? racks : []) await send('POST /api/racks', { body: { ...rackOf(rack), roomId: made!.id } })
    emit('changed')
  })
}
const rackOf = ({ code, kind, area_m2, length_text }: Room['racks'][number]) => ({
  ...{ code, kind, area_m2, length: length_text },
})
async function removeRack(r: Room, rack: Room['racks'][number]) {
  if (!(await send('DELETE /api/racks/:id', { id: rack.id }))) return
  emit('changed')
  useNotes().show(w('rooms.rackGone', { code: rack.code }), 'done', async () => {
    await send('POST /api/racks', { body: { ...rackOf(rack), roomId: r.id } })
    emit('changed')
  })
}
function saved() {
  changing.value = null
  emit('changed')
}
</script>

<template>
  <section data-test="rooms">
    <h2>{{ w('rooms.title') }}</h2>
    <p class="caption">{{ w('rooms.why') }}</p>
    <p v-for="what in missing" :key="what" class="verdict verdict-warn my-2">{{ w(`rooms.missing.${what}`) }}</p>
    <div v-for="r in rooms" :key="r.id" class="row" data-test="room">
      <div class="flex flex-wrap items-center gap-3">
        <span class="grow"
          ><strong>{{ r.name }}</strong> · {{ allows(r) }}<span class="caption block">{{ facts(r) }}</span></span
        >
        <template v-if="may">
          <button class="act act-quiet" @click="changing = r">{{ w('change') }}</button>
          <button v-if="rooms.length > 1" class="act act-quiet" @click="remove(r)">{{ w('remove') }}</button>
        </template>
      </div>
      <p v-for="rack in r.racks" :key="rack.id" class="flex items-center gap-3 pl-4 mt-2">
        <span class="grow"
          ><span class="clock">{{ rack.code }}</span> {{ w(`rooms.kind.${rack.kind}`)
          }}<span v-if="rack.area_m2" class="caption"> · {{ rack.area_m2 }} m²</span
          ><span v-if="rack.length_text" class="caption"> · {{ longUp(rack.length_text) }}</span
          ><span v-if="!rack.area_m2" class="caption"> · {{ w('rooms.onePiece') }}</span></span
        >
        <button v-if="may" class="act act-quiet" @click="removeRack(r, rack)">{{ w('remove') }}</button>
      </p>
    </div>
    <button v-if="may" class="act act-quiet mt-3" @click="changing = 'new'">{{ w('rooms.add') }}</button>
    <RoomForm
      v-if="changing"
      :room="changing === 'new' ? null : changing"
      :loggers="loggers"
      @saved="saved"
      @rack="emit('changed')"
      @close="changing = null"
    />
  </section>
</template>
