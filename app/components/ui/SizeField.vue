<script setup lang="ts">
/** A length as it is read off a rule: figures by the number keys, fractions where the shop measures in inches. */
const props = defineProps<{ label: string; error?: string; required?: boolean }>()
const model = defineModel<string>({ default: '' })
const session = useSession()
const id = useId()
const FRACTIONS = ['⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'] as const
const inInches = computed(() => session.shop?.length_unit === 'in')
/** One fraction at a time: another takes its place. */
const add = (fraction: string) => {
  const whole = model.value.replace(/\s*[⅛¼⅜½⅝¾⅞]$/, '').trim()
  model.value = whole ? `${whole} ${fraction}` : fraction
}
const near = ref(false)
</script>

<template>
  <div @focusin="near = true">
    <label :for="id" class="block">{{ props.label }}</label>
    <input
      :id="id"
      v-model="model"
      class="field"
      inputmode="decimal"
      autocomplete="off"
      :required="required"
      :aria-invalid="Boolean(error)"
      :aria-describedby="error ? `${id}-error` : undefined"
    />
    <div v-if="inInches && near" class="flex flex-wrap gap-1 mt-1">
      <button
        v-for="f in FRACTIONS"
        :key="f"
        type="button"
        class="act act-quiet !px-0 min-w-11"
        :aria-label="w('intake.fraction', { f })"
        @click="add(f)"
      >
        {{ f }}
      </button>
    </div>
    <p v-if="error" :id="`${id}-error`" class="text-madder">{{ error }}</p>
  </div>
</template>
