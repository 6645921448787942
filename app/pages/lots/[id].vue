<script setup lang="ts">
/** One can: how old, what is left, what is done with it, and where it went. */
import { quantitySaid } from '#core/store'

const route = useRoute()
const id = computed(() => Number(route.params.id))
const {
  data: page,
  failed,
  load,
} = useLive(
  'GET /api/lots/:id',
  topic => topic === 'store',
  () => ({ id: id.value }),
)
const { day, dayTime } = useFormat()
const lot = computed(() => page.value?.lot)
const q = (amount: number) => quantitySaid(amount, lot.value!.unit)
const change = (amount: number) => (amount === 0 ? '' : `${amount > 0 ? '+' : '−'}${q(Math.abs(amount))}`)
</script>

<template>
  <PageState v-if="!page || !lot" :failed="failed" />
  <div v-else class="grid lg:grid-cols-2 gap-10">
    <section class="grid gap-3 content-start">
      <h1>
        {{ lot.code }} <span class="caption">{{ lot.name }}</span>
      </h1>
      <p v-if="lot.gone_at" class="verdict verdict-stop">{{ w('lot.gone', { day: day(lot.gone_at) }) }}</p>
      <p
        v-else-if="lot.age !== 'good'"
        class="verdict"
        :class="lot.age === 'over' ? 'verdict-stop' : ''"
        data-test="age"
      >
        {{ w(`lot.${lot.age}`, { day: day(lot.until!) }) }}
      </p>
      <p v-if="!lot.gone_at && lot.skinned_on" class="verdict" data-test="skinned">
        {{ w('lot.skinned', { day: day(lot.skinned_on) }) }}
      </p>
      <p class="text-3xl font-bold clock" data-test="left">{{ q(lot.left_amount) }}</p>
      <ul>
        <li>{{ w('lot.received', { day: day(lot.received_on) }) }}</li>
        <li>{{ lot.opened_on ? w('lot.opened', { day: day(lot.opened_on) }) : w('lot.closed') }}</li>
        <li v-if="lot.until">{{ w('lot.until', { day: day(lot.until) }) }}</li>
        <li v-if="lot.place">
          <NuxtLink :to="`/places/${lot.place}`">{{ w('lot.at', { place: lot.place }) }}</NuxtLink>
        </li>
        <li v-if="lot.kept_for">
          <NuxtLink :to="`/pieces/${lot.kept_for}`">{{ w('lot.keptFor', { id: lot.kept_for }) }}</NuxtLink>
        </li>
      </ul>
      <LotActs :lot="lot" @changed="load" />
      <LabelLinks :says="w('lot.label')" :address="`/api/lots/${lot.id}/label`" />
    </section>
    <section class="grid gap-6 content-start">
      <div data-test="went">
        <h2>{{ w('lot.went') }}</h2>
        <p v-if="!page.went.length" class="row">{{ w('lot.nowhere') }}</p>
        <NuxtLink
          v-for="(g, i) in page.went"
          :key="i"
          class="row flex flex-wrap gap-x-4 no-underline"
          :to="`/pieces/${g.piece_id}/plan`"
        >
          <strong class="grow">{{ g.piece_id }} {{ g.piece }}</strong>
          <span class="clock">{{ g.amount === null ? w('lot.byPot', { id: g.pot ?? 0 }) : q(g.amount) }}</span>
          <span class="caption basis-full">{{ [g.step, dayTime(g.at)].filter(Boolean).join(' · ') }}</span>
        </NuxtLink>
      </div>
      <div data-test="moves">
        <h2>{{ w('lot.moves') }}</h2>
        <p v-if="!page.moves.length" class="row">{{ w('lot.noMoves') }}</p>
        <p v-for="m in page.moves" :key="m.id" class="row flex flex-wrap gap-x-4">
          <span class="grow">{{ w(`lot.kind.${m.kind}`) }}{{ m.word && `: ${m.word}` }}</span>
          <span class="clock">{{ change(m.amount) }}</span>
          <span class="caption basis-full">{{ m.by }}, {{ dayTime(m.at) }}</span>
        </p>
      </div>
    </section>
  </div>
</template>
