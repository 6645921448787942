<script setup lang="ts">
import { FIELD_VALUES, type Fields } from '#core/acts'
import { deltaE00, type Lab } from '#core/colour'
import { layerOfStep } from '#core/plan'

/** Did the round pass? If not, on which faces it comes once more, and how; where it colours, what each coat brought. */
const props = defineProps<{
  passTest: string
  on: readonly { id: number; name: string }[]
  /** the step, where its coats can be read on the panel of its piece */
  stepKey?: string
  pieceId?: number
}>()
/** faces on which it did not pass; null: it passed */
const again = defineModel<number[] | null>('again', { required: true })
const strength = defineModel<Fields['strength'] | null>('strength', { required: true })

const panel = shallowRef<AnswerOf<'GET /api/pieces/:id/panel'> | null>(null)
const layer = computed(() => (props.stepKey ? (layerOfStep(props.stepKey)?.layer ?? null) : null))
onMounted(async () => {
  if (props.pieceId && layer.value !== null)
    panel.value = await call('GET /api/pieces/:id/panel', { id: props.pieceId }).catch(() => null)
})
/** The newest reading of each state of the panel that has one, with what it brought over the state before it. */
const brought = computed(() => {
  const read = (panel.value?.lines ?? []).flatMap(l => {
    const lab = l.bands.findLast(b => b.lab)?.lab
    return lab ? [{ key: l.key, coat: l.coat, lab: lab as unknown as Lab }] : []
  })
  return read.flatMap((r, i) => {
    const before = read[i - 1]
    return before && layerOfStep(r.key)?.layer === layer.value
      ? [{ coat: r.coat ?? 1, dE: deltaE00(r.lab, before.lab) }]
      : []
  })
})
const colours = computed(() => (panel.value?.lines ?? []).some(l => layerOfStep(l.key)?.layer === layer.value))
</script>

<template>
  <fieldset class="mt-4 grid gap-3" data-test="round">
    <legend>{{ w('bench.passes', { test: passTest }) }}</legend>
    <p v-if="brought.length" class="clock" data-test="brought">
      {{ brought.map(b => w('bench.brought', { n: b.coat, dE: b.dE.toFixed(1) })).join(' · ') }}
    </p>
    <p v-else-if="colours" class="caption">{{ w('bench.readBands') }}</p>
    <div class="grid grid-cols-2 gap-3">
      <button
        type="button"
        class="act"
        :class="again === null ? '' : 'act-quiet'"
        :aria-pressed="again === null"
        @click="again = null"
      >
        {{ w('bench.itPasses') }}
      </button>
      <button
        type="button"
        class="act"
        :class="again === null ? 'act-quiet' : ''"
        :aria-pressed="again !== null"
        @click="again = on.map(f => f.id)"
      >
        {{ w('bench.onceMore') }}
      </button>
    </div>
    <template v-if="again !== null">
      <FaceChoice v-if="on.length > 1" v-model="again" :faces="on" :label="w('surface.faces')" />
      <ChoiceField
        v-model="strength"
        :label="w('field.strength')"
        :options="[
          { value: null, label: w('bench.asBefore') },
          ...optionsOf(FIELD_VALUES.strength, s => w(`field.strengthIs.${s}`)),
        ]"
      />
    </template>
  </fieldset>
</template>
