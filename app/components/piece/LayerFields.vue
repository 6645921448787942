<script setup lang="ts">
import { gritName, parseGrit } from '#core/abrasives'
import { actOf, FIELD_VALUES, LAYER_USES, type LayerUse, type Method } from '#core/acts'
import { classesFor, type Layer } from '#core/build'

/** What of a layer may be chosen: its product, coats or film, method, grit between, faces. */
const props = defineProps<{
  layer: Layer
  products: readonly { id: number; name: string; class: string; label: number | null }[]
  faces: readonly { id: number; name: string }[]
  usual: number
  frozen: boolean
}>()
const emit = defineEmits<{ change: [change: Partial<Omit<Layer, 'id'>>]; move: [by: number]; out: [] }>()
const act = computed(() => actOf({ kind: props.layer.act }))
const classes = computed(() => classesFor(props.layer.act))
/** The shop's own products first, then any of a class. */
const options = computed(() => [
  ...props.products
    .filter(p => classes.value.some(c => c.slug === p.class) && p.label !== null)
    .map(p => ({ value: `own ${p.label!}`, label: p.name })),
  ...classes.value.map(c => ({ value: c.slug, label: w('surface.anyOf', { name: c.name }) })),
])
const product = computed({
  get: () => (props.layer.label === null ? props.layer.product : `own ${props.layer.label}`),
  set: value => {
    const own = props.products.find(p => `own ${p.label}` === value)
    emit('change', own ? { product: own.class, label: own.label } : { product: value, label: null })
  },
})
const methods = computed(() => [
  { value: null, label: w('surface.usualMethod') },
  ...optionsOf(act.value.methods, m => w(`method.${m}`)),
])
const uses = computed(() => [
  { value: null, label: w('surface.finish') },
  ...optionsOf(LAYER_USES, u => w(`surface.uses.${u}`)),
])
const between = ref('')
const gritError = ref('')
watch(
  () => props.layer,
  l => {
    between.value = l.between ? gritName(l.between) : ''
    gritError.value = ''
  },
  { immediate: true },
)
function takeGrit() {
  try {
    gritError.value = ''
    emit('change', { between: between.value.trim() ? parseGrit(between.value) : null })
  } catch (error) {
    gritError.value = (error as Error).message
  }
}
const some = computed({
  get: () => [...(props.layer.faces ?? props.faces.map(f => f.id))],
  set: on => emit('change', { faces: on.length === 0 || on.length === props.faces.length ? null : on }),
})
</script>

<template>
  <p v-if="frozen" class="caption">{{ w('surface.begun') }}</p>
  <div v-else class="grid gap-3" data-test="layer-fields">
    <FindField v-model="product" :label="w('surface.product')" :options="options" :none="w('surface.notChosen')" />
    <div class="grid grid-cols-2 gap-3">
      <NumberField
        :model-value="layer.coats"
        :label="`${w('surface.coats')} (${w('surface.usual', { n: usual })})`"
        :min="1"
        :max="20"
        @update:model-value="emit('change', { coats: $event || null, film_um: null })"
      />
      <NumberField
        v-if="act.does.includes('finishes')"
        :model-value="layer.film_um"
        :label="w('surface.film')"
        :min="5"
        :max="500"
        @update:model-value="emit('change', { film_um: $event || null, coats: null })"
      />
      <ChoiceField
        :model-value="layer.method"
        :label="w('surface.method')"
        :options="methods"
        @update:model-value="emit('change', { method: ($event ?? null) as Method | null })"
      />
      <TextField
        v-if="act.does.includes('films') && act.does.includes('finishes')"
        v-model="between"
        :label="w('surface.between')"
        :error="gritError"
        @change="takeGrit"
      />
      <ChoiceField
        v-if="act.fields.includes('as')"
        :model-value="layer.use"
        :label="w('surface.use')"
        :options="uses"
        @update:model-value="emit('change', { use: ($event ?? null) as LayerUse | null })"
      />
      <ChoiceField
        v-if="layer.act === 'fill'"
        :model-value="layer.fields.wipe ?? null"
        :label="w('field.wipe')"
        :options="[
          { value: null, label: w('surface.usualMethod') },
          ...optionsOf(FIELD_VALUES.wipe, v => w(`field.wipeIs.${v}`)),
        ]"
        @update:model-value="emit('change', { fields: $event ? { wipe: $event } : {} })"
      />
      <ChoiceField
        v-if="act.fields.includes('shade')"
        :model-value="layer.fields.shade ?? null"
        :label="w('field.shade')"
        :options="[
          { value: null, label: w('surface.plainShade') },
          ...optionsOf(FIELD_VALUES.shade, v => w(`field.shadeIs.${v}`)),
        ]"
        @update:model-value="emit('change', { fields: $event ? { shade: $event } : {} })"
      />
      <NumberField
        v-if="act.does.includes('finishes') && act.does.includes('films')"
        :model-value="layer.fields.tint_pct ?? null"
        :label="w('surface.tint')"
        :min="0.1"
        :max="20"
        step="any"
        @update:model-value="emit('change', { fields: $event ? { tint_pct: $event } : {} })"
      />
    </div>
    <div v-if="faces.length > 1">
      <p>{{ w('surface.faces') }}</p>
      <FaceChoice v-model="some" :faces="faces" :label="w('surface.faces')" />
    </div>
    <div class="flex flex-wrap gap-2">
      <button type="button" class="act act-quiet" @click="emit('move', 1)">{{ w('surface.up') }}</button>
      <button type="button" class="act act-quiet" @click="emit('move', -1)">{{ w('surface.down') }}</button>
      <button type="button" class="act act-quiet" @click="emit('out')">{{ w('surface.out') }}</button>
    </div>
  </div>
</template>
