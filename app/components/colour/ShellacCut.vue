<script setup lang="ts">
import { ALCOHOL_G_ML, dissolve, FLAKES_G_ML, recut, shellac_g_ml } from '#core/mixing'

/** From one cut of shellac to another, and flakes to alcohol; either becomes a pot by a touch. */
const emit = defineEmits<{
  take: [name: string, parts: { name: string; class: string | null; share: number; density_g_ml: number }[]]
}>()
const shellac = reactive({ have: 500, from: 2, to: 1, make: 500, cut: 2 })
const thinned = computed(() =>
  shellac.have > 0 && shellac.from > 0 && shellac.to > 0 ? recut(shellac.have, shellac.from, shellac.to) : null,
)
const made = computed(() => (shellac.make > 0 && shellac.cut > 0 ? dissolve(shellac.make, shellac.cut) : null))
const grams = (g: number) => Math.round(g * 10) / 10
const alcohol = (ml: number) => ({
  name: w('mix.alcohol'),
  class: 'alcohol',
  share: grams(ml * ALCOHOL_G_ML),
  density_g_ml: ALCOHOL_G_ML,
})
const flakes = (g: number) => ({ name: w('mix.flakes'), class: null, share: grams(g), density_g_ml: FLAKES_G_ML })
const cutName = (cut: number) => w('mix.haveShellac', { cut })
function takeThinned() {
  const { addAlcohol_ml, addFlakes_g } = thinned.value!
  const have = {
    name: cutName(shellac.from),
    class: 'dewaxed-shellac',
    share: grams(shellac.have * shellac_g_ml(shellac.from)),
    density_g_ml: shellac_g_ml(shellac.from),
  }
  emit('take', cutName(shellac.to), [
    have,
    ...(addAlcohol_ml > 0 ? [alcohol(addAlcohol_ml)] : []),
    ...(addFlakes_g > 0 ? [flakes(addFlakes_g)] : []),
  ])
}
const takeMade = () =>
  emit('take', cutName(shellac.cut), [alcohol(made.value!.alcohol_ml), flakes(made.value!.flakes_g)])
</script>

<template>
  <section class="grid gap-2 content-start">
    <h2>{{ w('mix.shellac') }}</h2>
    <div class="grid grid-cols-3 gap-2">
      <label>{{ w('mix.haveMl') }} <input v-model.number="shellac.have" type="number" min="1" class="field" /></label
      ><label
        >{{ w('mix.fromCut') }} <input v-model.number="shellac.from" type="number" step="0.25" class="field" /></label
      ><label>{{ w('mix.toCut') }} <input v-model.number="shellac.to" type="number" step="0.25" class="field" /></label>
    </div>
    <p v-if="thinned" data-test="recut">
      {{
        thinned.addAlcohol_ml > 0
          ? w('mix.addAlcohol', { ml: thinned.addAlcohol_ml.toFixed(0), total: thinned.total_ml.toFixed(0) })
          : w('mix.addFlakes', { g: thinned.addFlakes_g.toFixed(0), total: thinned.total_ml.toFixed(0) })
      }}
      <button type="button" class="underline min-h-11" @click="takeThinned">{{ w('mix.potOf') }}</button>
    </p>
    <div class="grid grid-cols-2 gap-2">
      <label>{{ w('mix.makeMl') }} <input v-model.number="shellac.make" type="number" min="1" class="field" /></label
      ><label>{{ w('mix.cut') }} <input v-model.number="shellac.cut" type="number" step="0.25" class="field" /></label>
    </div>
    <p v-if="made">
      {{ w('mix.dissolve', { g: made.flakes_g.toFixed(0), ml: made.alcohol_ml.toFixed(0) }) }}
      <button type="button" class="underline min-h-11" @click="takeMade">{{ w('mix.potOf') }}</button>
    </p>
  </section>
</template>
