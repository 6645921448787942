<script setup lang="ts">
/** One room: what it is for, its size and air; and a new rack for it. */
type Room = AnswerOf<'GET /api/rooms'>['rooms'][number]
const props = defineProps<{ room: Room | null; loggers: readonly string[] }>()
const emit = defineEmits<{ saved: []; rack: []; close: [] }>()
const blank = {
  ...{ name: '', dust: false, wet: true, other: true, outdoors: false, oneAtATime: false },
  ...{ changeOverMin: 30 as number | null, length: '', volume_m3: null, airChanges_h: null, logger: '' },
}
const form = ref({ ...blank, ...(props.room && withoutRows(props.room)) })
function withoutRows({ id: _id, racks: _racks, air: _air, rowVersion: _version, ...fields }: Room) {
  return fields
}
const made = useSubmit('POST /api/rooms', () => form.value)
const changed = useSubmit('PUT /api/rooms/:id', () => ({ ...form.value, rowVersion: props.room?.rowVersion }))
const errors = computed(() => (props.room ? changed : made).errors.value)
async function save() {
  const done = props.room ? await changed.submit({ id: props.room.id }) : await made.submit({})
  if (done) emit('saved')
}
/** Loggers that are heard of, and the one it has though it is silent. */
const loggers = computed(() => {
  const usual = w(form.value.outdoors ? 'rooms.logger.weather' : 'rooms.logger.shop')
  const names = [...new Set([...props.loggers, ...(props.room?.logger ? [props.room.logger] : [])])]
  return optionsOf(['', ...names], name => name || usual)
})
const rack = useForm('POST /api/racks', () => ({
  ...{ roomId: props.room?.id ?? 0, code: '', kind: 'rack', area_m2: null, length: '' },
}))
async function addRack() {
  if (!(await rack.submit({}))) return
  rack.reset()
  emit('rack')
}
</script>

<template>
  <DialogBox :title="room ? w('rooms.changing', { name: room.name }) : w('rooms.add')" @close="emit('close')">
    <form class="grid grid-cols-2 gap-3 mt-4" @submit.prevent="save">
      <TextField v-model="form.name" class="col-span-2" :label="w('rooms.name')" :error="errors.name" required />
      <SwitchField v-model="form.dust" :label="w('rooms.allow.dust')" />
      <SwitchField v-model="form.wet" :label="w('rooms.allow.wet')" />
      <SwitchField v-model="form.other" :label="w('rooms.allow.other')" />
      <SwitchField v-model="form.outdoors" :label="w('rooms.isOutdoors')" />
      <SwitchField v-model="form.oneAtATime" class="col-span-2" :label="w('rooms.isOne')" />
      <NumberField
        v-model="form.changeOverMin"
        :label="w('rooms.changeOver')"
        :min="0"
        :max="1440"
        :error="errors.changeOverMin"
      />
      <SizeField v-model="form.length" :label="w('rooms.length')" :error="errors.length" />
      <NumberField v-model="form.volume_m3" :label="w('rooms.volumeIs')" step="any" :error="errors.volume_m3" />
      <NumberField v-model="form.airChanges_h" :label="w('rooms.airIs')" step="any" :error="errors.airChanges_h" />
      <ChoiceField v-model="form.logger" class="col-span-2" :label="w('rooms.logger.is')" :options="loggers" />
      <p class="caption col-span-2">{{ w('rooms.logger.why') }}</p>
      <div class="flex gap-3 col-span-2">
        <button class="act">{{ w('save') }}</button>
        <button type="button" class="act act-quiet" @click="emit('close')">{{ w('cancel') }}</button>
      </div>
    </form>
    <form v-if="room" class="grid grid-cols-2 gap-3 mt-6 border-t border-line pt-4" @submit.prevent="addRack">
      <h3 class="col-span-2">{{ w('rooms.addRack') }}</h3>
      <TextField v-model="rack.draft.value.code" :label="w('rooms.code')" :error="rack.errors.value.code" />
      <ChoiceField
        v-model="rack.draft.value.kind"
        :label="w('rooms.kindIs')"
        :options="optionsOf(['rack', 'trestles'], k => w(`rooms.kind.${k}`))"
      />
      <NumberField
        v-model="rack.draft.value.area_m2"
        :label="w('rooms.area')"
        step="any"
        :error="rack.errors.value.area_m2"
      />
      <SizeField v-model="rack.draft.value.length" :label="w('rooms.rackLength')" :error="rack.errors.value.length" />
      <p class="caption col-span-2">{{ w('rooms.rackWhy') }}</p>
      <button class="act act-quiet justify-self-start">{{ w('rooms.addRack') }}</button>
    </form>
  </DialogBox>
</template>
