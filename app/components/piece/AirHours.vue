<script setup lang="ts">
import { type Air, blushMargin_K, coatingHours, coatingSpans, judgeAir, whatHelps } from '#core/air'
import type { Material } from '#core/materials'

/** The hours of the coming days in which a product may go on, and what would help. */
const props = defineProps<{ material: Material; ahead: PlanPage['ahead']; air: Air | null; now: number }>()
const { at } = useMoment()
const { day, time, span, percent, degrees, inUnit } = useFormat()
const need = computed(() => props.material.air!)
/** the film stays wet for its recoat time at the least, eight hours looked at */
const wet_h = computed(() => Math.min(8, Math.ceil(props.material.recoat_min[0] / 60)))
const open = computed(() => new Map(props.ahead?.hours.map(h => [h.at_ms, h.open])))
const hours = computed(() =>
  props.ahead
    ? coatingHours(
        need.value,
        { seen: props.ahead.seen, hours: props.ahead.hours.map(h => ({ at_ms: h.at_ms, air: h })) },
        wet_h.value,
        ms => open.value.get(ms) ?? false,
      )
    : [],
)
const days = computed(() => {
  const rows = new Map<string, typeof hours.value>()
  for (const h of hours.value.filter(x => x.open)) rows.set(day(h.at_ms), [...(rows.get(day(h.at_ms)) ?? []), h])
  return [...rows].slice(0, 4)
})
const ends = computed(() => {
  const all = days.value.flatMap(([, hs]) => hs.map(h => at(h.at_ms).hour))
  return [Math.min(...all), Math.max(...all) + 1] as const
})
const spans = computed(() => coatingSpans(hours.value).slice(0, 4))
const firstStop = computed(() => hours.value.find(h => h.open && h.severity === 'stop') ?? null)
const helps = computed(() =>
  props.air ? whatHelps(need.value, props.air, props.material.recoat_min[0] / 60, hours.value, props.now) : [],
)
const verdict = computed(() => judgeAir(need.value, props.air))
const margin = computed(() => (props.air ? blushMargin_K(need.value, props.air) : null))
</script>

<template>
  <section class="grid gap-2" data-test="air-hours">
    <h3>{{ w('airHours.title') }}</h3>
    <p
      v-if="margin !== null"
      class="clock"
      :class="verdict.severity === 'stop' ? 'text-madder' : verdict.severity === 'warn' ? 'text-ochre' : ''"
    >
      {{
        w(margin < 0 ? 'airHours.below' : 'airHours.above', {
          t: degrees(air!.temperature_C),
          rh: percent(air!.rh),
          margin: inUnit(`${Math.abs(margin).toFixed(1)} K`),
        })
      }}
      <span v-for="l in verdict.lines" :key="l" class="block">{{ inUnit(l) }}</span>
    </p>
    <p v-else class="text-madder">{{ inUnit(verdict.lines[0] ?? '') }}</p>
    <template v-if="days.length">
      <p v-if="spans.length">
        {{ w('airHours.may') }}
        <span v-for="(s, i) in spans" :key="s.from_ms" class="clock"
          ><template v-if="i">, </template>{{ day(s.from_ms) }} {{ time(s.from_ms) }}–{{ time(s.to_ms)
          }}{{ s.severity === 'warn' ? ` ${w('airHours.withCare')}` : '' }}</span
        >
      </p>
      <p v-else class="text-madder">{{ w('airHours.never') }}</p>
      <div class="grid grid-cols-[6.5rem_1fr] gap-x-3 gap-y-1 items-center">
        <span /><span
          class="grid caption"
          :style="{ gridTemplateColumns: `repeat(${ends[1] - ends[0]}, 1fr)` }"
          aria-hidden="true"
          ><span v-for="h in ends[1] - ends[0]" :key="h">{{ ends[0] + h - 1 }}</span></span
        >
        <template v-for="[name, its] in days" :key="name">
          <span class="clock caption">{{ name }}</span>
          <svg
            :viewBox="`0 0 ${(ends[1] - ends[0]) * 20} 22`"
            class="w-full h-7"
            preserveAspectRatio="none"
            role="img"
            :aria-label="
              w('airHours.row', {
                day: name,
                may:
                  its
                    .filter(h => h.severity !== 'stop')
                    .map(h => time(h.at_ms))
                    .join(', ') || '–',
              })
            "
          >
            <template v-for="h in its" :key="h.at_ms">
              <rect
                v-if="h.severity === 'ok'"
                :x="(at(h.at_ms).hour - ends[0]) * 20"
                y="2"
                width="19"
                height="18"
                fill="var(--color-verdigris)"
              />
              <rect
                v-else-if="h.severity === 'warn'"
                :x="(at(h.at_ms).hour - ends[0]) * 20"
                y="11"
                width="19"
                height="9"
                fill="var(--color-ochre)"
              />
              <path
                v-else
                :d="`M${(at(h.at_ms).hour - ends[0]) * 20} 20 h19`"
                stroke="var(--color-madder)"
                stroke-width="3"
              />
            </template>
          </svg>
        </template>
      </div>
      <p v-if="firstStop" class="text-madder">
        {{ day(firstStop.at_ms) }} {{ time(firstStop.at_ms) }}: {{ inUnit(firstStop.why ?? '') }}
      </p>
      <p class="caption">{{ w('airHours.legend', { n: ahead!.seen }) }}</p>
    </template>
    <ul v-if="helps.length">
      <li v-for="h in helps" :key="h.kind">
        {{
          w(`airHours.help.${h.kind}`, {
            c: h.to_C == null ? '' : degrees(h.to_C, 0),
            rh: h.to_rh === null ? '' : percent(h.to_rh),
            t: span(h.hours * 3_600_000),
          })
        }}<span v-if="h.makes === 'warn'" class="caption"> {{ w('airHours.stillWarns') }}</span>
      </li>
    </ul>
  </section>
</template>
