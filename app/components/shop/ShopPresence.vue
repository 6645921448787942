<script setup lang="ts">
import { openingsSaid } from '#core/timetable'

/** When people at the bench are there, and what they do. */
type Presence = AnswerOf<'GET /api/rooms'>['people'][number]
defineProps<{ people: readonly Presence[]; hours: AnswerOf<'GET /api/rooms'>['hours'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const clock = useClock()
const { day } = useFormat()
const changing = ref<Presence | null>(null)
const DAYS = [1, 2, 3, 4, 5, 6, 7] as const
const skills = (p: Presence) => p.skills.map(k => w(`rooms.skill.${k}`)).join(', ') || w('rooms.allSkills')
const week = (p: Presence) =>
  p.week
    ? DAYS.flatMap(d => (p.week![d]?.length ? `${w(`weekday.${d}`)} ${openingsSaid(p.week![d])}` : [])).join(' · ')
    : w('rooms.shopHours')
const coming = (p: Presence) => p.off.filter(o => o.until >= new Date(clock.now).toISOString().slice(0, 10))
const offSaid = ({ from, until }: Presence['off'][number]) =>
  from === until ? day(from) : `${day(from)} – ${day(until)}`
function saved() {
  changing.value = null
  emit('changed')
}
</script>

<template>
  <section data-test="presence">
    <h2>{{ w('rooms.people') }}</h2>
    <p class="caption">{{ w('rooms.peopleWhy') }}</p>
    <div v-for="p in people" :key="p.id" class="row flex flex-wrap items-center gap-3">
      <span class="grow"
        ><strong>{{ p.name }}</strong> · {{ skills(p) }}<span class="caption block">{{ week(p) }}</span
        ><span v-for="o in coming(p)" :key="o.from" class="caption block"
          >{{ w('rooms.offIs', { days: offSaid(o) }) }}{{ o.why && `, ${o.why}` }}</span
        ></span
      >
      <button v-if="session.may('people')" class="act act-quiet" @click="changing = p">{{ w('change') }}</button>
    </div>
    <PresenceForm v-if="changing" :person="changing" :hours="hours" @saved="saved" @close="changing = null" />
  </section>
</template>
