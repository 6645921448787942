<script setup lang="ts">
import { actOf, type ChosenField, FIELD_VALUES, type Fields, type StepKind } from '#core/acts'

/** What a kind of step is told beside product, grits and method: what it takes away, fills with, wipes how. */
const props = defineProps<{ kind: StepKind }>()
const fields = defineModel<Fields>({ required: true })
const own = computed(() => actOf({ kind: props.kind }).fields.filter((f): f is ChosenField => f in FIELD_VALUES))
const shakes = computed(() => actOf({ kind: props.kind }).fields.includes('shaken'))
const set = (field: keyof Fields, value: unknown) => {
  fields.value = Object.fromEntries(
    Object.entries({ ...fields.value, [field]: value }).filter(([, given]) => given),
  ) as Fields
}
</script>

<template>
  <ChoiceField
    v-for="field in own"
    :key="field"
    :model-value="fields[field] ?? ''"
    :label="w(`field.${field}`)"
    :options="[
      { value: '', label: w('field.unsaid') },
      ...optionsOf(FIELD_VALUES[field], value => w(wordOf('field', `${field}Is.${value}`))),
    ]"
    class="w-56"
    @update:model-value="set(field, $event)"
  />
  <label v-if="shakes" class="flex items-center gap-2 min-h-12"
    ><input
      type="checkbox"
      class="size-6"
      :checked="Boolean(fields.shaken)"
      @change="set('shaken', ($event.target as HTMLInputElement).checked)"
    />
    {{ w('field.shaken') }}</label
  >
</template>
