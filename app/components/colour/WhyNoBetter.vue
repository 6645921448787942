<script setup lang="ts">
import type { Reason } from '#core/colour'

/** Why no recipe comes closer, and what would help. */
const props = defineProps<{ reasons: readonly Reason[]; bleached: boolean; nameOf: (id: number) => string }>()
const wayOut = (r: Extract<Reason, { slug: 'gamut' }>) => {
  if (Math.abs(r.turned) > 3) return r.turned > 0 ? 'colour.reason.yellower' : 'colour.reason.redder'
  return r.stronger < 0 ? 'colour.reason.greyer' : 'colour.reason.stronger'
}
const bleachHelps = (de: number | null) =>
  de === null ? '' : w(props.bleached ? 'colour.reason.bleachedAgain' : 'colour.reason.bleached', { de: de.toFixed(1) })
function tell(r: Reason): string {
  if (r.slug === 'lighter')
    return (
      `${w(props.bleached ? 'colour.reason.lighterStill' : 'colour.reason.lighter', { by: r.by.toFixed(0) })} ` +
      bleachHelps(r.bleached)
    )
  if (r.slug === 'limit') return w('colour.reason.limit', { name: props.nameOf(r.id) })
  if (r.slug === 'lights')
    return w('colour.reason.lights', { light: w(`colour.lights.${r.light}`), de: r.de.toFixed(1) })
  return w('colour.reason.gamut', { way: w(wayOut(r)) })
}
</script>

<template>
  <div v-if="reasons.length" data-test="reasons">
    <h3>{{ w('colour.whyNot') }}</h3>
    <p v-for="r in reasons" :key="r.slug" class="verdict mt-1">{{ tell(r) }}</p>
  </div>
</template>
