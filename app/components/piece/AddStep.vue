<script setup lang="ts">
import { type Grit, P, parseGrit } from '#core/abrasives'
import { actOf, type Fields, STEP_KINDS, type StepKind, stepOf, takesProduct, titleOf } from '#core/acts'
import type { Context } from '#core/context'
import { MATERIALS } from '#core/materials'

/** A step put in by hand: kind, faces, and what its kind asks. What is left blank follows from the kind. */
const props = defineProps<{ after: number; context: Context; faces: readonly { id: number; name: string }[] }>()
const emit = defineEmits<{ add: [step: BodyOf<'POST /api/pieces/:id/steps'>]; cancel: [] }>()
const KINDS = STEP_KINDS.filter(kind => actOf({ kind }).byHand)
const kind = ref<StepKind>('clean-off')
const act = computed(() => actOf({ kind: kind.value }))
const title = ref('')
const minutes = ref<number | ''>('')
const product = ref<string | null>(null)
const grit = ref('')
const method = ref(act.value.methods[0])
const fields = ref<Fields>({})
const on = ref(props.faces.map(f => f.id))
const products = computed(() => MATERIALS.filter(m => takesProduct({ kind: kind.value }, m)))
const abrades = computed(() => act.value.fields.includes('grits'))
watch(kind, () => {
  product.value = act.value.needs?.always ? (products.value[0]?.slug ?? null) : null
  method.value = act.value.methods[0]
  fields.value = {}
  grit.value = ''
})
/** Grits as typed, each on its scale; a blank takes the usual one. */
const typed = computed((): { grits: Grit[]; error?: string } => {
  if (!abrades.value) return { grits: [] }
  const usual = P(kind.value === 'sand' ? 180 : 320)
  try {
    const grits = grit.value
      .split(/[,→>;]+/)
      .filter(g => g.trim())
      .map(parseGrit)
    return { grits: grits.length ? grits : [usual] }
  } catch (error) {
    return { grits: [usual], error: (error as Error).message }
  }
})
const said = computed(() =>
  titleOf(
    stepOf({
      key: '',
      kind: kind.value,
      faces: on.value,
      product: product.value,
      grits: typed.value.grits,
      method: method.value,
      fields: fields.value,
    }),
    props.context,
  ),
)
function add() {
  if (typed.value.error) return useNotes().show(typed.value.error, 'stop')
  emit('add', {
    after: props.after,
    kind: kind.value,
    faces: on.value,
    ...(title.value.trim() ? { title: title.value } : {}),
    ...(minutes.value === '' ? {} : { attendedMin: minutes.value }),
    product: product.value,
    grits: typed.value.grits,
    method: method.value,
    coat: null,
    fields: fields.value,
  })
}
</script>

<template>
  <form class="flex flex-wrap gap-2 items-end" data-test="add-step" @submit.prevent="add">
    <FindField
      v-model="kind"
      :label="w('plan.kind')"
      :options="optionsOf(KINDS, k => actOf({ kind: k }).called)"
      class="w-60"
    />
    <FindField
      v-if="products.length"
      v-model="product"
      :label="w('plan.product')"
      :options="[{ value: null, label: w('field.unsaid') }, ...namedOptions(products)]"
      class="w-60"
    />
    <TextField v-if="abrades" v-model="grit" class="w-44" :label="w('plan.grits')" :error="typed.error" />
    <ChoiceField
      v-if="act.methods.length > 1"
      v-model="method"
      :label="w('plan.method')"
      :options="optionsOf(act.methods, m => w(`method.${m}`))"
      class="w-44"
    />
    <StepFields v-model="fields" :kind="kind" />
    <label class="grow basis-64"
      >{{ w('plan.what') }}
      <input v-model="title" class="field" maxlength="200" :placeholder="said" :required="kind === 'other'"
    /></label>
    <label class="w-36"
      >{{ w('plan.minutes') }}
      <input
        v-model.number="minutes"
        type="number"
        min="0"
        max="10000"
        class="field"
        :placeholder="w('plan.workedOut')"
    /></label>
    <FaceChoice v-if="faces.length > 1" v-model="on" class="w-full" :faces="faces" :label="w('plan.onFaces')" />
    <button class="act" :disabled="on.length === 0">{{ w('plan.add') }}</button>
    <button type="button" class="act act-quiet" @click="emit('cancel')">{{ w('cancel') }}</button>
  </form>
</template>
