<script setup lang="ts">
import type { BenchNow } from '~/composables/bench'

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

const ringing = computed(() =>
  props.bench.windows.filter(
    w =>
      w.hard &&
      w.kind === 'dwell' &&
      w.closes_ms !== null &&
      !w.from.includes('approval') &&
      clock.now > w.closes_ms - BEFORE_MS &&
      clock.now < w.closes_ms + 12 * 3_600_000,
  ),
)
/** Closed a while ago: folded into one band, so that a shop that slept does not drown its page. */
const late = computed(() => ringing.value.filter(w => clock.now > w.closes_ms! + BEFORE_MS))
const single = computed(() =>
  late.value.length > 1 ? ringing.value.filter(w => !late.value.includes(w)) : ringing.value,
)
const loud = computed(() => ringing.value.filter(w => !w.acknowledged))

let context: AudioContext | undefined
function sound() {
  if (!navigator.userActivation?.hasBeenActive) return
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
    }
  },
)
const heard = async (...list: typeof ringing.value) => {
  for (const w of list) await send('POST', '/api/alarms', { pieceId: w.pieceId, from: w.from, to: w.to })
}
</script>

<template>
  <div
    v-for="w in single"
    :key="`${w.pieceId}${w.from}${w.to}`"
    class="flex flex-wrap items-center gap-x-6 gap-y-2 px-6 py-3 border-b border-line"
    :class="w.acknowledged ? 'bg-madder-wash text-ink' : 'bg-[#8c2620] text-white'"
    role="alert"
    data-test="alarm"
  >
    <strong class="text-2xl clock">{{
      clock.now < w.closes_ms!
        ? $t('alarm.left', { left: span(w.closes_ms! - clock.now) })
        : $t('alarm.over', { at: time(w.closes_ms!) })
    }}</strong>
    <span class="text-lg grow">{{ w.step.title }} · {{ w.pieceId }} {{ w.piece }}</span>
    <span v-if="w.acknowledged">{{ $t('alarm.heardBy', { name: w.acknowledged }) }}</span>
    <button
      v-else-if="session.may('owner', 'lead', 'finisher')"
      class="act act-quiet !bg-white !text-[#1c211f]"
      @click="heard(w)"
    >
      {{ $t('alarm.heard', { name: session.person?.name }) }}
    </button>
  </div>
  <div
    v-if="late.length > 1"
    class="flex flex-wrap items-center gap-x-6 gap-y-2 px-6 py-3 border-b border-line"
    :class="late.every(w => w.acknowledged) ? 'bg-madder-wash text-ink' : 'bg-[#8c2620] text-white'"
    role="alert"
    data-test="alarm"
  >
    <strong class="text-xl clock">{{ $t('alarm.late', { n: late.length }) }}</strong>
    <span class="grow">{{ late.map(w => `${w.step.title} · ${w.pieceId} ${w.piece}`).join(' | ') }}</span>
    <button
      v-if="late.some(w => !w.acknowledged) && session.may('owner', 'lead', 'finisher')"
      class="act act-quiet !bg-white !text-[#1c211f]"
      @click="heard(...late.filter(w => !w.acknowledged))"
    >
      {{ $t('alarm.heard', { name: session.person?.name }) }}
    </button>
  </div>
</template>
