<script setup lang="ts">
import { openingsRead, openingsSaid, openingsWrong } from '#core/timetable'

/** When the shop is open, and on which days it is not; the owner changes both. */
const props = defineProps<{ shop: AnswerOf<'GET /api/shop'> }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { at } = useMoment()
const day = (iso: string) => at(iso).toFormat('ccc d LLL yyyy')
const DAYS = [1, 2, 3, 4, 5, 6, 7] as const
const said = (d: number) => openingsSaid(props.shop.hours.week[d] ?? [])
const week = ref<string[]>([])
const closures = ref<{ day: string; why: string }[]>([])
const fresh = ref<string | null>(null)
const why = ref('')
const asKept = () => ({ week: DAYS.map(said), closures: props.shop.closures.map(c => ({ ...c })) })
let known = { week: week.value, closures: closures.value }
// somebody else changed the shop: what was typed here stays, all else is as it is now
watch(
  () => props.shop.rowVersion,
  () => {
    const now = asKept()
    const typed = JSON.stringify(closures.value) !== JSON.stringify(known.closures)
    week.value = now.week.map((text, i) => (week.value[i] === known.week[i] ? text : week.value[i]!))
    if (!typed) closures.value = now.closures
    known = asKept()
  },
  { immediate: true },
)
/** What is wrong with the hours of a day, in words. */
const wrong = computed(() => week.value.map(openingsWrong))
function close() {
  if (!fresh.value || closures.value.some(c => c.day === fresh.value)) return
  const added = { day: fresh.value, why: why.value }
  closures.value = [...closures.value, added].sort((a, b) => a.day.localeCompare(b.day))
  fresh.value = null
  why.value = ''
}
async function save() {
  if (wrong.value.some(Boolean)) return
  const body = {
    rowVersion: props.shop.rowVersion,
    week: week.value.map(text => openingsRead(text).map(([from, to]): [number, number] => [from, to])),
    closures: closures.value,
  }
  if (!(await send('PUT /api/shop/hours', { body }))) return
  week.value = body.week.map(openingsSaid)
  known = { week: week.value, closures: body.closures.map(c => ({ ...c })) }
  emit('changed')
}
</script>

<template>
  <section>
    <h2>{{ w('shop.hours') }}</h2>
    <p v-for="d in DAYS" :key="d" class="row flex justify-between !py-1.5 clock">
      <span>{{ w(`weekday.${d}`) }}</span><span>{{ said(d) || w('timetable.closed') }}</span>
    </p>
    <p v-for="c in shop.closures" :key="c.day" class="row flex justify-between !py-1.5" data-test="closure">
      <span class="clock">{{ day(c.day) }}</span><span>{{ c.why || w('timetable.closed') }}</span>
    </p>
    <p class="caption">{{ shop.hours.zone }}</p>
    <FoldOut v-if="session.may('shop')" class="mt-2" :title="w('shop.changeHours')">
      <form class="grid gap-3" @submit.prevent="save">
        <div class="grid sm:grid-cols-2 gap-3">
          <TextField v-for="(d, i) in DAYS" :key="d" v-model="week[i]" :label="w(`weekday.${d}`)" :error="wrong[i]" />
        </div>
        <p v-for="(c, i) in closures" :key="c.day" class="row flex items-center gap-3 !py-1.5">
          <span class="clock">{{ day(c.day) }}</span><span class="grow">{{ c.why }}</span
          ><button type="button" class="act act-quiet" @click="closures.splice(i, 1)">{{ w('remove') }}</button>
        </p>
        <div class="grid sm:grid-cols-[1fr_1fr_auto] gap-3 items-end">
          <DateField v-model="fresh" :label="w('shop.closedOn')" />
          <TextField v-model="why" :label="w('shop.closedWhy')" />
          <button type="button" class="act act-quiet" :disabled="!fresh" @click="close">
            {{ w('shop.addClosure') }}
          </button>
        </div>
        <p class="caption">{{ w('shop.hoursWhy') }}</p>
        <button class="act justify-self-start" :disabled="wrong.some(Boolean)">{{ w('save') }}</button>
      </form>
    </FoldOut>
  </section>
</template>
