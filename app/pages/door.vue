<script setup lang="ts">
/** A tablet of the shop at which nobody stands: what closes, and a tap on one's name. */
definePageMeta({ layout: 'plain', wide: true })
const session = useSession()
const clock = useClock()
const events = useEvents()
const { dayTime, span } = useFormat()
const { data: bench, load } = useLive('GET /api/now', topic => topic !== 'store')
watch(bench, now => {
  if (now) clock.set(now.now_ms)
})
useIntervalFn(load, 20_000)
onUnmounted(
  events.on(topic => {
    if (topic === 'shop') void session.load()
  }),
)
const line = useLine()
const waiting = useWaiting()
onMounted(() => {
  events.open()
  void waiting.recall()
  void useProgram().keep()
})
/** What opens or closes next, as far as it is one look. */
const MOST = 6
const closing = computed(() =>
  (bench.value?.windows ?? [])
    .filter(l => l.closes_ms !== null || (l.opens_ms !== null && clock.now < l.opens_ms))
    .slice(0, MOST),
)
const chosen = ref<number | null>(null)
const who = computed(() => session.people.find(p => p.id === chosen.value) ?? null)
async function inside() {
  if (!session.byName) await session.load()
  await navigateTo(session.whereLeft())
}
</script>

<template>
  <div>
    <div class="flex flex-wrap items-baseline gap-x-6 mb-4">
      <h1 class="grow">{{ session.tablet?.name }}</h1>
      <LineState />
      <span class="text-3xl clock" data-test="clock">{{ clock.now ? dayTime(clock.now) : ' ' }}</span>
    </div>
    <AlarmBand v-if="bench" :bench="bench" />
    <div class="grid md:grid-cols-2 gap-10 mt-5">
      <section>
        <h2>{{ w('door.who') }}</h2>
        <DoorByName v-if="who && line.away" class="mt-3" :who="who" @inside="inside" @back="chosen = null" />
        <DoorKey v-else-if="who" :key="who.id" class="mt-3" :who="who" @inside="inside" @back="chosen = null" />
        <div v-else class="grid grid-cols-2 gap-3 mt-3">
          <button
            v-for="p in session.people"
            :key="p.id"
            class="act act-quiet !min-h-20 text-2xl !justify-start text-left"
            data-test="name"
            @click="chosen = p.id"
          >
            {{ p.name }}
          </button>
        </div>
      </section>
      <section>
        <h2>{{ w('now.windows') }}</h2>
        <p v-if="bench && !closing.length" class="row">{{ w('now.noWindow') }}</p>
        <div v-for="l in closing" :key="`${l.pieceId}${l.from}${l.to}`" class="row flex items-baseline gap-4">
          <span class="grow"
            ><strong>{{ l.step.title }}</strong
            ><span class="caption block">{{ l.pieceId }} · {{ l.piece }}</span></span
          >
          <span class="text-right whitespace-nowrap">
            <template v-if="l.opens_ms !== null && clock.now < l.opens_ms"
              >{{ w('now.opensIn') }}
              <strong class="clock text-xl">{{ span(l.opens_ms - clock.now) }}</strong></template
            >
            <template v-else-if="l.closes_ms !== null"
              >{{ w(l.closes_ms < clock.now ? 'now.past' : 'now.closesIn') }}
              <strong class="clock text-xl" :class="l.closes_ms - clock.now < 600_000 ? 'text-madder' : ''">{{
                span(Math.abs(l.closes_ms - clock.now))
              }}</strong></template
            >
          </span>
        </div>
      </section>
    </div>
  </div>
</template>
