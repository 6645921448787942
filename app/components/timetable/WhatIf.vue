<script setup lang="ts">
import { dayColumns } from '#core/timetable/axis'

/** One thing that might be otherwise, worked out beside the schedule as it is; then taken, or left. */
const props = defineProps<{ table: Timetable }>()
const emit = defineEmits<{ close: []; taken: [] }>()
const session = useSession()
const { at } = useMoment()
const KINDS = ['rush', 'away', 'wet', 'booth'] as const
const today = at(props.table.now_ms).toISODate()!
const later = at(props.table.now_ms).plus({ days: 6 }).toISODate()!
const form = ref({
  ...{ kind: 'rush' as (typeof KINDS)[number], from: today as string | null, until: later as string | null },
  ...{ pieceId: props.table.pieces[0]?.pieceId ?? null, by: later as string | null },
  personId: props.table.people[0]?.id ?? null,
})
const pieces = computed(() => props.table.pieces.map(p => ({ value: p.pieceId, label: `${p.pieceId} ${p.piece}` })))
const body = computed(() => {
  const { kind, pieceId, personId, by, from, until } = form.value
  if (kind === 'booth') return { kind }
  if (kind === 'rush') return pieceId && by ? { kind, pieceId, by } : null
  if (!from || !until) return null
  if (kind === 'wet') return { kind, from, until }
  return personId ? { kind, personId, from, until } : null
})
const effects = shallowRef<Effects | null>(null)
const drawn = ref(false)
const columns = computed(() => dayColumns(props.table.hours, today, 7))
/** Each person's week as it is, and under it as it would be. */
const lanes = computed(() =>
  props.table.people.flatMap(p =>
    (['was', 'then'] as const).map((side, i): Lane => {
      const bars = effects.value?.week[side].filter(b => b.personId === p.id) ?? []
      const says = w(side === 'was' ? 'timetable.today2' : 'timetable.then')
      return { id: p.id * 2 + i, name: side === 'was' ? p.name : '', says, warns: false, post_ms: null, air: [], bars }
    }),
  ),
)
const busy = ref(false)
const error = ref('')
watch(body, () => ((effects.value = null), (error.value = '')))
async function run(work: () => Promise<unknown>) {
  busy.value = true
  error.value = ''
  try {
    await work()
  } catch (e) {
    error.value = problem(e).message
  }
  busy.value = false
}
const work = () =>
  run(async () => (effects.value = await sendOnce('POST /api/timetable/what-if', { body: body.value! })))
const RIGHT = { rush: 'take-in', away: 'people' } as const
const takes = computed(() => {
  const its = body.value
  return its && (its.kind === 'rush' || its.kind === 'away') && session.may(RIGHT[its.kind]) ? its : null
})
const take = () =>
  run(async () => {
    const its = takes.value!
    await sendOnce('POST /api/timetable/take', { body: its })
    useNotes().show(w(`timetable.taken.${its.kind}`), 'done')
    emit('taken')
  })
</script>

<template>
  <DialogBox :title="w('timetable.whatIf')" :wide="drawn && effects !== null" @close="emit('close')">
    <form class="grid gap-3 mt-3" @submit.prevent="work">
      <RadioField
        v-model="form.kind"
        :label="w('timetable.whatIf')"
        label-hidden
        :options="optionsOf(KINDS, k => w(`timetable.if.${k}`))"
      />
      <div class="grid sm:grid-cols-2 gap-3">
        <template v-if="form.kind === 'rush'">
          <ChoiceField v-model="form.pieceId" :label="w('timetable.piece')" :options="pieces" />
          <DateField v-model="form.by" :label="w('timetable.readyBy')" />
        </template>
        <ChoiceField
          v-if="form.kind === 'away'"
          v-model="form.personId"
          class="sm:col-span-2"
          :label="w('timetable.whoAway')"
          :options="namedOptions(table.people)"
        />
        <template v-if="form.kind === 'away' || form.kind === 'wet'">
          <DateField v-model="form.from" :label="w('timetable.fromDay')" />
          <DateField v-model="form.until" :label="w('timetable.untilDay')" />
        </template>
      </div>
      <p class="caption">{{ w(`timetable.ifWhat.${form.kind}`) }}</p>
      <p v-if="error" class="text-madder" role="alert">{{ error }}</p>
      <button v-if="!effects" class="act justify-self-start" :disabled="busy || !body">
        {{ busy ? w('timetable.thinking') : w('timetable.workOut') }}
      </button>
    </form>
    <EffectList v-if="effects" class="mt-4" :effects="effects" />
    <template v-if="effects">
      <button class="underline min-h-11 max-sm:hidden" :aria-expanded="drawn" @click="drawn = !drawn">
        {{ w(drawn ? 'timetable.hideWeek' : 'timetable.showWeek') }}
      </button>
      <div v-if="drawn" class="overflow-x-auto max-sm:hidden" tabindex="0" data-test="both-weeks">
        <TimeBoard :lanes="lanes" :columns="columns" :now="table.now_ms" :pieces="false" :may-move="false" />
      </div>
    </template>
    <div class="flex flex-wrap gap-3 mt-4">
      <button v-if="effects && takes" class="act" :disabled="busy" @click="take">
        {{ w(`timetable.take.${takes.kind}`) }}
      </button>
      <NuxtLink v-if="effects && form.kind === 'booth'" to="/shop?part=rooms" class="act act-quiet no-underline">{{
        w('timetable.addRoom')
      }}</NuxtLink>
      <button class="act act-quiet" @click="emit('close')">{{ w(effects ? 'timetable.leaveIt' : 'close') }}</button>
    </div>
  </DialogBox>
</template>
