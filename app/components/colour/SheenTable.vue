<script setup lang="ts">
import { flattingFor, levelsOf, type ShareOf, SHARES_OF } from '#core/mixing'

/** How much flatting the maker's table gives for a sheen. */
const emit = defineEmits<{ take: [pct: number, of: ShareOf] }>()
const sheen = reactive({ gloss: 30, table: '0 90\n20 50\n40 20', of: 'sum' as ShareOf })
const points = computed(() =>
  sheen.table
    .split('\n')
    .filter(l => l.trim())
    .map(l => {
      const [pct = Number.NaN, gloss = Number.NaN] = l
        .trim()
        .split(/[\s;:,]+/)
        .map(Number)
      return { pct, gloss }
    }),
)
const flat = computed(() => {
  try {
    return { pct: flattingFor(points.value, sheen.gloss), error: '' }
  } catch (error) {
    return { pct: null, error: (error as Error).message }
  }
})
</script>

<template>
  <section class="grid gap-2 content-start">
    <h2>{{ w('mix.sheen') }}</h2>
    <label>{{ w('mix.table') }} <textarea v-model="sheen.table" rows="3" class="field" /></label>
    <div class="grid grid-cols-2 gap-2">
      <ChoiceField
        v-model="sheen.of"
        :label="w('mix.tableOf')"
        :options="
          optionsOf(
            SHARES_OF.filter(o => o !== 'parts'),
            o => w(`mix.shareOf.${o}`),
          )
        "
      /><label
        >{{ w('mix.gloss') }} <input v-model.number="sheen.gloss" type="number" min="0" max="100" class="field"
      /></label>
    </div>
    <p data-test="flatting">
      {{
        flat.error ||
        (flat.pct === null
          ? w('mix.outside')
          : w('mix.flatting', {
              pct: flat.pct.toFixed(0),
              of: w(`mix.shareOf.${sheen.of}`),
              levels: levelsOf(sheen.gloss).join(', ') || '–',
            }))
      }}
      <button
        v-if="flat.pct"
        type="button"
        class="underline min-h-11"
        @click="emit('take', Math.round(flat.pct), sheen.of)"
      >
        {{ w('mix.intoMix') }}
      </button>
    </p>
    <p class="caption">{{ w('mix.testCard') }}</p>
  </section>
</template>
