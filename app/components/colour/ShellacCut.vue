<script setup lang="ts">
import { dissolve, recut } from '#core/mixing'

/** From one cut of shellac to another, and flakes to alcohol. */
const shellac = reactive({ have: 500, from: 2, to: 1, make: 500, cut: 2 })
const thinned = computed(() => shellac.have > 0 && shellac.from > 0 && shellac.to > 0 ? recut(shellac.have, shellac.from, shellac.to) : null)
const made = computed(() => shellac.make > 0 && shellac.cut > 0 ? dissolve(shellac.make, shellac.cut) : null)
</script>

<template>
  <section class="grid gap-2 content-start">
    <h2>{{ $t('mix.shellac') }}</h2>
    <div class="grid grid-cols-3 gap-2"><label>{{ $t('mix.haveMl') }} <input v-model.number="shellac.have" type="number" min="1" class="field"></label><label>{{ $t('mix.fromCut') }} <input v-model.number="shellac.from" type="number" step="0.25" class="field"></label><label>{{ $t('mix.toCut') }} <input v-model.number="shellac.to" type="number" step="0.25" class="field"></label></div>
    <p v-if="thinned" data-test="recut">{{ thinned.addAlcohol_ml > 0 ? $t('mix.addAlcohol', { ml: thinned.addAlcohol_ml.toFixed(0), total: thinned.total_ml.toFixed(0) }) : $t('mix.addFlakes', { g: thinned.addFlakes_g.toFixed(0), total: thinned.total_ml.toFixed(0) }) }}</p>
    <div class="grid grid-cols-2 gap-2"><label>{{ $t('mix.makeMl') }} <input v-model.number="shellac.make" type="number" min="1" class="field"></label><label>{{ $t('mix.cut') }} <input v-model.number="shellac.cut" type="number" step="0.25" class="field"></label></div>
    <p v-if="made">{{ $t('mix.dissolve', { g: made.flakes_g.toFixed(0), ml: made.alcohol_ml.toFixed(0) }) }}</p>
  </section>
</template>
