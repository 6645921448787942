<script setup lang="ts">
import { gritName, parseGrit } from '#core/abrasives'
import { actOf, FIELD_VALUES, LAYER_USES, type LayerUse, type Method } from '#core/acts'
import { classesFor, type Layer, type LayerFields } from '#core/build'

/** What of a layer may be chosen: its product, coats or film, method, grit between, faces. */
const props = defineProps<{
  layer: Layer
  products: readonly { id: number; name: string; class: string; label: number | null }[]
  faces: readonly { id: number; name: string }[]
  /** the shop's recipes, by name */
  recipes: readonly string[]
  usual: number
  frozen: boolean
}>()
const emit = defineEmits<{ change: [change: Partial<Omit<Layer, 'id'>>]; move: [by: number]; out: [] }>()
const COATS = [1, 20] as const
const FILM_UM = [5, 500] as const
/** A number that its field accepts; what lies outside is said there, and changes nothing. */
function number(
  value: number | null | undefined,
  [min, max]: readonly [number, number],
  change: (n: number | null) => void,
) {
  if (!outside(value ?? null, min, max)) change(value || null)
}
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
const colours = computed(() => act.value.does.includes('colours'))
const laysFilm = computed(() => act.value.does.includes('finishes') && act.value.does.includes('films'))
const BOUNDS = { tint_pct: [0.1, 20], thinned_pct: [1, 200], band_mm: [1, 2000] } as const
const numbers = computed(() => [
  ...(laysFilm.value ? (['tint_pct'] as const) : []),
  ...(act.value.usesUp ? (['thinned_pct'] as const) : []),
  ...(colours.value || laysFilm.value ? (['band_mm'] as const) : []),
])
/** Changes one of its fields; what is emptied is gone. */
function field(change: LayerFields) {
  const all = { ...props.layer.fields, ...change }
  emit('change', { fields: Object.fromEntries(Object.entries(all).filter(([, v]) => v !== undefined)) })
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
        :min="COATS[0]"
        :max="COATS[1]"
        @update:model-value="number($event, COATS, n => emit('change', { coats: n, film_um: null }))"
      />
      <NumberField
        v-if="act.does.includes('finishes')"
        :model-value="layer.film_um"
        :label="w('surface.film')"
        :min="FILM_UM[0]"
        :max="FILM_UM[1]"
        @update:model-value="number($event, FILM_UM, n => emit('change', { film_um: n, coats: null }))"
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
        @update:model-value="field({ wipe: $event ?? undefined })"
      />
      <ChoiceField
        v-if="act.fields.includes('shade')"
        :model-value="layer.fields.shade ?? null"
        :label="w('field.shade')"
        :options="[
          { value: null, label: w('surface.plainShade') },
          ...optionsOf(FIELD_VALUES.shade, v => w(`field.shadeIs.${v}`)),
        ]"
        @update:model-value="field({ shade: $event ?? undefined })"
      />
      <NumberField
        v-for="n in numbers"
        :key="n"
        :model-value="layer.fields[n] ?? null"
        :label="w(`surface.${n}`)"
        :min="BOUNDS[n][0]"
        :max="BOUNDS[n][1]"
        step="any"
        @update:model-value="number($event, BOUNDS[n], v => field({ [n]: v ?? undefined }))"
      />
      <FindField
        v-if="recipes.length && (colours || layer.fields.tint_pct)"
        :model-value="layer.fields.recipe ?? null"
        class="col-span-2"
        :label="w('surface.recipe')"
        :options="recipes.map(r => ({ value: r, label: r }))"
        :none="w('surface.noRecipe')"
        @update:model-value="field({ recipe: $event ?? undefined })"
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
