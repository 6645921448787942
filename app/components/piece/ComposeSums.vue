<script setup lang="ts">
import type { ComposedSum } from '~/workers/compose.worker'

/** What the composed surface comes to, with what it was before beside it. */
const props = defineProps<{
  sum: ComposedSum | null
  before: ComposedSum | null
  proposed: ComposedSum | null
  film: number
}>()
const session = useSession()
const { hours, money, day } = useFormat()
const was = (differs: boolean, says: string) => (differs ? w('surface.before', { was: says }) : '')
/** What the proposal would come to, where it is not this. */
const would = (of: (s: ComposedSum) => string) =>
  props.proposed && props.sum && of(props.proposed) !== of(props.sum)
    ? w('surface.would', { sum: of(props.proposed) })
    : ''
const lines = computed(() => {
  const { sum, before } = props
  if (!sum) return []
  const old = before ?? sum
  return [
    [
      w('surface.hands'),
      hours(sum.minutes),
      was(old.minutes !== sum.minutes, hours(old.minutes)),
      would(s => hours(s.minutes)),
    ],
    ...(session.may('see-prices')
      ? [
          [
            w('surface.price'),
            money(sum.total_minor),
            was(old.total_minor !== sum.total_minor, money(old.total_minor)),
            would(s => money(s.total_minor)),
          ],
        ]
      : []),
    [
      w('surface.ready'),
      day(sum.likely_ms),
      was(day(old.likely_ms) !== day(sum.likely_ms), day(old.likely_ms)),
      would(s => day(s.likely_ms)),
    ],
  ]
})
</script>

<template>
  <dl class="flex flex-wrap gap-x-8 gap-y-2 clock" data-test="sums">
    <div v-for="[name, value, old, other] in lines" :key="name">
      <dt class="caption">{{ name }}</dt>
      <dd>
        <strong class="text-lg">{{ value }}</strong><span class="caption block min-h-5">{{ old }}</span
        ><span class="caption block min-h-5">{{ other }}</span>
      </dd>
    </div>
    <div>
      <dt class="caption">{{ w('surface.filmSum') }}</dt>
      <dd>
        <strong class="text-lg">{{ Math.round(film) }} µm</strong>
      </dd>
    </div>
  </dl>
</template>
