<script setup lang="ts">
import { flattingFor, levelsOf } from '#core/mixing'

/** How much flatting the maker's table gives for a sheen. */
const sheen = reactive({ gloss: 30, table: '0 90\n20 50\n40 20' })
const points = computed(() => sheen.table.split('\n').filter(l => l.trim()).map((l) => { const [pct = Number.NaN, gloss = Number.NaN] = l.trim().split(/[\s;:,]+/).map(Number); return { pct, gloss } }))
const flat = computed(() => {
  try { return { pct: flattingFor(points.value, sheen.gloss), error: '' } }
  catch (error) { return { pct: null, error: (error as Error).message } }
})
</script>

<template>
  <section class="grid gap-2 content-start">
    <h2>{{ $t('mix.sheen') }}</h2>
    <label>{{ $t('mix.table') }} <textarea v-model="sheen.table" rows="3" class="field" /></label>
    <label>{{ $t('mix.gloss') }} <input v-model.number="sheen.gloss" type="number" min="0" max="100" class="field !w-28"></label>
    <p data-test="flatting">{{ flat.error || (flat.pct === null ? $t('mix.outside') : $t('mix.flatting', { pct: flat.pct.toFixed(0), levels: levelsOf(sheen.gloss).join(', ') || '–' })) }}</p>
    <p class="caption">{{ $t('mix.testCard') }}</p>
  </section>
</template>
