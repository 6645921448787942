<script setup lang="ts">
import { SKILLS } from '#core/schedule/model'
import { openingsRead, openingsSaid, openingsWrong } from '#core/timetable/openings'

/** One person's skills, hours and days off. */
type Presence = AnswerOf<'GET /api/rooms'>['people'][number]
const props = defineProps<{ person: Presence; hours: AnswerOf<'GET /api/rooms'>['hours'] }>()
const emit = defineEmits<{ saved: []; close: [] }>()
const { day } = useFormat()
const DAYS = [1, 2, 3, 4, 5, 6, 7] as const
const all = ref(props.person.skills.length === 0)
const skills = ref<Record<string, boolean>>(Object.fromEntries(props.person.skills.map(k => [k, true])))
const own = ref(props.person.week !== null)
const week = ref(DAYS.map(d => openingsSaid((props.person.week ?? props.hours.week)[d] ?? [])))
const off = ref(props.person.off.map(o => ({ ...o })))
const fresh = ref<{ from: string | null; until: string | null; why: string }>({ from: null, until: null, why: '' })
/** What is wrong with the hours of a day, in words. */
const wrong = computed(() => week.value.map(openingsWrong))
const freshWrong = computed(() => {
  const { from, until } = fresh.value
  return from && until && until < from ? w('rooms.endsFirst') : undefined
})
function add() {
  const { from, until, why } = fresh.value
  if (!from || freshWrong.value || off.value.some(o => o.from === from)) return
  off.value = [...off.value, { from, until: until ?? from, why }].sort((a, b) => a.from.localeCompare(b.from))
  fresh.value = { from: null, until: null, why: '' }
}
const { errors, submit } = useSubmit('PUT /api/people/:id/presence', () => ({
  rowVersion: props.person.rowVersion,
  skills: all.value ? [] : SKILLS.filter(k => skills.value[k]),
  week: own.value ? week.value.map(text => openingsRead(text).map(([from, to]) => [from, to])) : null,
  off: off.value,
}))
const offWrong = computed(() => Object.entries(errors.value).find(([field]) => field.startsWith('off'))?.[1])
const none = computed(() => !all.value && !SKILLS.some(k => skills.value[k]))
async function save() {
  add()
  if (own.value && wrong.value.some(Boolean)) return
  if (await submit({ id: props.person.id })) emit('saved')
}
</script>

<template>
  <DialogBox :title="w('rooms.changing', { name: person.name })" @close="emit('close')">
    <form class="grid gap-3 mt-4" @submit.prevent="save">
      <SwitchField v-model="all" :label="w('rooms.everything')" />
      <div v-if="!all" class="grid grid-cols-2 gap-x-3 pl-4">
        <SwitchField v-for="k in SKILLS" :key="k" v-model="skills[k]" :label="w(`rooms.skill.${k}`)" />
        <p class="caption col-span-2">{{ none ? w('rooms.noSkill') : w('rooms.skillsWhy') }}</p>
      </div>
      <SwitchField v-model="own" :label="w('rooms.ownHours')" />
      <div v-if="own" class="grid grid-cols-2 gap-3 pl-4">
        <TextField v-for="(d, i) in DAYS" :key="d" v-model="week[i]" :label="w(`weekday.${d}`)" :error="wrong[i]" />
        <p class="caption self-end">{{ w('rooms.ownWhy') }}</p>
      </div>
      <h3>{{ w('rooms.off') }}</h3>
      <p v-for="(o, i) in off" :key="o.from" class="flex items-center gap-3">
        <span class="grow">{{ day(o.from) }}{{ o.until === o.from ? '' : ` – ${day(o.until)}` }} {{ o.why }}</span
        ><button type="button" class="act act-quiet" @click="off.splice(i, 1)">{{ w('remove') }}</button>
      </p>
      <div class="grid grid-cols-2 gap-3 items-end">
        <DateField v-model="fresh.from" :label="w('rooms.offFrom')" />
        <DateField v-model="fresh.until" :label="w('rooms.offUntil')" :error="freshWrong" />
        <TextField v-model="fresh.why" :label="w('shop.closedWhy')" />
        <button type="button" class="act act-quiet" :disabled="!fresh.from" @click="add">
          {{ w('rooms.addOff') }}
        </button>
      </div>
      <p v-if="offWrong" class="text-madder">{{ offWrong }}</p>
      <div class="flex gap-3">
        <button class="act" :disabled="none">{{ w('save') }}</button>
        <button type="button" class="act act-quiet" @click="emit('close')">{{ w('cancel') }}</button>
      </div>
    </form>
  </DialogBox>
</template>
