<script setup lang="ts">
import { pourState, toleranceOf } from '#core/mixing'

/** Pouring one line of a pot on the balance: a column that fills to its target line, and stop. */
const props = defineProps<{
  line: {
    id: number
    name: string
    wanted_g: number
    poured_g: number | null
    product_id: number | null
    lot_id: number | null
  }
  lots: readonly { id: number; code: string; left_amount: number }[]
  smallestG: number
}>()
const emit = defineEmits<{ poured: [grams: number, lotId: number | null] }>()
const { weight, steady, simulated, open, tell } = useBalance()
const { amount } = useFormat()
const tolerance = computed(() => toleranceOf(props.line.wanted_g, props.smallestG))
/** What a pour already begun holds; a scaled-up rest goes on from there. */
const base = ref(0)
const g = computed(() => (weight.value === null ? null : base.value + weight.value))
const state = computed(() => (g.value === null ? 'silent' : pourState(g.value, props.line.wanted_g, tolerance.value)))
const lotId = ref<number | null>(null)
const typed = ref<number | null>(null)
const pouring = ref(false)
watch(
  () => props.line.id,
  () => {
    base.value = props.line.poured_g ?? 0
    lotId.value = props.line.lot_id ?? props.lots[0]?.id ?? null
    typed.value = null
    if (weight.value !== null) void tell('tare')
  },
  { immediate: true },
)
onMounted(async () => {
  open()
  await tell('tare')
})
async function pour() {
  pouring.value = true
  await tell('pour', Math.max(0.5, Math.min(20, props.line.wanted_g / 8)))
}
async function stop() {
  pouring.value = false
  await tell('stop')
}
/** A hand slows and stops at the line; the simulated one is stopped here. */
watch(state, s => {
  if (pouring.value && simulated.value && (s === 'there' || s === 'over')) void stop()
})
onUnmounted(() => {
  if (pouring.value) void tell('stop')
})
const done = async () => {
  if (pouring.value) await stop()
  emit('poured', Math.max(0, Math.round((typed.value ?? g.value ?? 0) * 100) / 100), lotId.value)
}
const full = computed(() => Math.max(props.line.wanted_g * 1.15, (g.value ?? 0) * 1.02, 0.01))
const y = (grams: number) => 180 - (180 * Math.min(grams, full.value)) / full.value
const fill = computed(
  () =>
    (
      ({ over: 'var(--color-madder)', there: 'var(--color-moss)', nearly: 'var(--color-ochre)' }) as Record<
        string,
        string
      >
    )[state.value] ?? 'var(--color-verdigris)',
)
</script>

<template>
  <div class="grid grid-cols-[7rem_1fr] gap-x-6 gap-y-3 items-start" data-test="pour" :data-state="state">
    <svg
      viewBox="0 0 112 190"
      class="w-28"
      role="img"
      :aria-label="`${line.name}: ${g?.toFixed(1) ?? '–'} g / ${line.wanted_g.toFixed(1)} g`"
    >
      <rect x="10" y="0" width="60" height="180" fill="var(--color-sheet)" stroke="var(--color-line)" />
      <rect x="10" :y="y(Math.max(0, g ?? 0))" width="60" :height="180 - y(Math.max(0, g ?? 0))" :fill="fill" />
      <line x1="4" x2="84" :y1="y(line.wanted_g)" :y2="y(line.wanted_g)" stroke="var(--color-ink)" stroke-width="3" />
      <text x="86" :y="y(line.wanted_g) + 5" font-size="13" fill="var(--color-ink)">
        {{ line.wanted_g.toFixed(1) }}
      </text>
    </svg>
    <div class="grid gap-2">
      <h2>{{ line.name }}</h2>
      <p class="text-5xl font-bold clock" :style="{ color: fill }" role="status">
        {{ g === null ? '–' : g.toFixed(1) }} <span class="text-2xl">g</span>
      </p>
      <p class="font-semibold">
        {{
          w(`mix.pour.${state}`, {
            g: (line.wanted_g - (g ?? 0)).toFixed(1),
            over: ((g ?? 0) - line.wanted_g).toFixed(1),
          })
        }}<span v-if="g !== null && !steady" class="caption ml-2">{{ w('mix.moving') }}</span>
      </p>
      <FindField
        v-if="line.product_id && lots.length"
        v-model="lotId"
        :label="w('bench.lot')"
        :options="[
          ...lots.map(l => ({ value: l.id, label: `${l.code}: ${amount(l.left_amount)}` })),
          { value: null, label: w('bench.noLot') },
        ]"
      />
      <div class="flex flex-wrap gap-3">
        <button v-if="simulated && !pouring" class="act act-quiet" @click="pour">{{ w('mix.pourSimulated') }}</button>
        <button v-if="pouring" class="act act-stop" @click="stop">{{ w('mix.stop') }}</button>
        <button class="act" :disabled="g === null && typed === null" @click="done">{{ w('mix.take') }}</button>
      </div>
      <label class="caption"
        >{{ w('mix.typed') }}
        <input v-model.number="typed" type="number" min="0" step="any" class="field !w-36 text-base text-ink"
      /></label>
    </div>
  </div>
</template>
