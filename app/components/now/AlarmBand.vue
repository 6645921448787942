<script setup lang="ts">
import type { BenchNow, WindowLine } from '~/composables/bench'

/**
 * Full-width alarm while a window is about to close or has closed; sounds until somebody says their name, and again
 * until done.
 */
const props = defineProps<{ bench: BenchNow }>()
const clock = useClock()
const session = useSession()
const { time, span } = useFormat()
const BEFORE_MS = 10 * 60_000
const SOUND_EVERY_MS = 20_000
/** Where nobody has heard, the other tablets sound too. */
const TRAVELS_MS = 120_000

const connection = useLine()
/** Heard on this device while there was no line to tell it: it is quiet here. */
const heardHere = ref(new Map<string, string>())
const keyOf = ({ pieceId, from, to }: WindowLine) => `${pieceId} ${from} ${to}`
const windows = computed(() =>
  props.bench.windows.map(line => ({
    ...line,
    acknowledged: line.acknowledged ?? heardHere.value.get(keyOf(line)) ?? null,
  })),
)
const ringing = computed(() =>
  windows.value.filter(
    line =>
      line.hard &&
      line.kind === 'dwell' &&
      line.closes_ms !== null &&
      !line.from.includes('approval') &&
      clock.now > line.closes_ms - BEFORE_MS &&
      clock.now < line.closes_ms + 12 * 3_600_000,
  ),
)
/** Closed a while ago: folded into one band, so that a shop that slept does not drown its page. */
const late = computed(() => ringing.value.filter(line => clock.now > line.closes_ms! + BEFORE_MS))
const single = computed(() =>
  late.value.length > 1 ? ringing.value.filter(line => !late.value.includes(line)) : ringing.value,
)
/** It sounds first where somebody stands who had it in hand, or where the piece is, then everywhere. */
const loud = computed(() =>
  ringing.value.filter(line => {
    if (line.acknowledged) return false
    const mine = !line.hands.length || line.hands.includes(session.person?.id ?? 0)
    const here = session.tablet !== null && session.tablet.place === props.bench.pieces[line.pieceId]?.place
    return mine || here || clock.now > line.closes_ms! - BEFORE_MS + TRAVELS_MS
  }),
)

const notify = useNotifyKept()
const leftOf = (line: (typeof ringing.value)[number]) =>
  clock.now < line.closes_ms!
    ? w('alarm.left', { left: span(line.closes_ms! - clock.now) })
    : w('alarm.over', { at: time(line.closes_ms!) })
let context: AudioContext | undefined
function sound() {
  if (!navigator.userActivation?.hasBeenActive) return
  navigator.vibrate?.([300, 150, 300])
  try {
    context ??= new AudioContext()
    for (const [i, pitch] of [880, 660, 880].entries()) {
      const tone = context.createOscillator()
      const volume = context.createGain()
      tone.frequency.value = pitch
      volume.gain.setValueAtTime(0.25, context.currentTime + i * 0.25)
      volume.gain.exponentialRampToValueAtTime(0.001, context.currentTime + i * 0.25 + 0.22)
      tone.connect(volume).connect(context.destination)
      tone.start(context.currentTime + i * 0.25)
      tone.stop(context.currentTime + i * 0.25 + 0.24)
    }
  } catch {
    /* a tablet without sound still shows the band */
  }
}
let last = 0
watch(
  () => [clock.now, loud.value.length],
  () => {
    if (loud.value.length === 0) {
      last = 0
      return
    }
    if (clock.now - last >= SOUND_EVERY_MS) {
      last = clock.now
      sound()
      if (notify.value.on)
        for (const line of loud.value)
          void notifyAlarm(`${line.step.title}: ${leftOf(line)}`, `${line.pieceId} ${line.piece}`)
    }
  },
)
const nameOf = (id: number | undefined) => props.bench.people.find(p => p.id === id)?.name ?? session.person?.name ?? ''
const heardBy = async (list: typeof ringing.value, personId?: number) => {
  for (const one of list) {
    const { pieceId, from, to } = one
    if (!connection.away) await send('POST /api/alarms', { body: { pieceId, from, to, personId } })
    // by whoever stands here; it rings again on a page that is loaded anew
    else heardHere.value = new Map(heardHere.value).set(keyOf(one), nameOf(personId))
  }
}
const unheard = computed(() => late.value.filter(line => !line.acknowledged))
</script>

<template>
  <div
    v-for="line in single"
    :key="`${line.pieceId}${line.from}${line.to}`"
    class="flex flex-wrap items-center gap-x-6 max-md:gap-x-3 gap-y-1 px-6 max-md:px-4 py-1.5 border-b border-line"
    :class="line.acknowledged ? 'bg-madder-wash text-ink' : 'bg-[#8c2620] text-white'"
    role="alert"
    data-test="alarm"
  >
    <strong class="text-2xl max-md:text-xl max-md:grow clock">{{ leftOf(line) }}</strong>
    <span class="text-lg max-md:text-base grow basis-40 max-md:order-last max-md:basis-full"
      >{{ line.step.title }} · {{ line.pieceId }} {{ line.piece }}</span
    >
    <span v-if="line.acknowledged">{{ w('alarm.heardBy', { name: line.acknowledged }) }}</span>
    <HeardBy v-else @heard="heardBy([line], $event)" />
  </div>
  <div
    v-if="late.length > 1"
    class="flex flex-wrap items-center gap-x-6 max-md:gap-x-3 gap-y-1 px-6 max-md:px-4 py-1.5 border-b border-line"
    :class="late.every(line => line.acknowledged) ? 'bg-madder-wash text-ink' : 'bg-[#8c2620] text-white'"
    role="alert"
    data-test="alarm"
  >
    <strong class="text-xl max-md:text-base max-md:grow clock">{{ w('alarm.late', { n: late.length }) }}</strong>
    <span class="grow basis-40 max-md:order-last max-md:basis-full max-md:line-clamp-2">{{
      late.map(line => `${line.step.title} · ${line.pieceId} ${line.piece}`).join(' | ')
    }}</span>
    <HeardBy v-if="unheard.length" @heard="heardBy(unheard, $event)" />
  </div>
</template>
