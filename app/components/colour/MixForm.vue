<script setup lang="ts">
import { cautionsOfAll, materialOf, solidsOf } from '#core/materials'
import {
  COMMON_MIXTURES,
  type CommonIngredient,
  ladles,
  leastTotal,
  measured,
  mixture,
  SHARES_OF,
  SHOWN_ERROR,
} from '#core/mixing'
import { cautionText } from '#core/safety'
import { round, sumOf } from '#core/units'

/** Mixtures by parts and percent, worked out while typing; a touch makes a pot of them. */
const props = defineProps<{ products: readonly { id: number; name: string; class: string }[] }>()
const emit = defineEmits<{ made: [id: number] }>()
type Row = CommonIngredient & { productId: number | null }
const row = (more: Partial<Row> = {}): Row => ({
  name: '',
  class: null,
  productId: null,
  share: 1,
  of: 'parts',
  density_g_ml: 1,
  solids: null,
  ...more,
})
const common = (slug: string) => {
  const { by, pot_min, ingredients } = COMMON_MIXTURES.find(m => m.slug === slug)!
  return { by, pot_min, rows: ingredients.map(row) }
}
const form = reactive({
  name: '',
  amount: 350,
  unit: 'total_ml',
  of: 0,
  smallest_g: 0.1,
  ladle_ml: 60,
  ...common('urethane'),
})
const cautions = computed(() => cautionsOfAll(form.rows.flatMap(r => r.class ?? [])))
/** A name that is a product's takes that product, with its density and solids, and its lots when it is poured. */
function choose(r: Row) {
  const p = props.products.find(x => x.name === r.name)
  r.productId = p?.id ?? null
  if (p)
    Object.assign(r, {
      class: p.class,
      density_g_ml: materialOf(p.class).density,
      solids: solidsOf(materialOf(p.class)),
    })
}
/** Takes a mixture that was worked out elsewhere on the page, by weight. */
function take(name: string, parts: readonly Pick<Row, 'name' | 'class' | 'share' | 'density_g_ml'>[]) {
  Object.assign(form, {
    name,
    by: 'weight',
    unit: 'total_g',
    amount: round(
      sumOf(parts, x => x.share),
      1,
    ),
    pot_min: null,
    rows: parts.map(row),
  })
}
const add = (more: Partial<Row> = {}) => {
  form.rows.push(row(more))
}
defineExpose({ take, add })
const wanted = computed(() => {
  if (form.unit === 'total_ml') return { total_ml: form.amount }
  if (form.unit === 'total_g') return { total_g: form.amount }
  if (form.unit === 'can_ml') return { of: form.of, ml: form.amount }
  return { of: form.of, g: form.amount }
})
const result = computed(() => {
  try {
    return { mixed: mixture(form.rows, form.by, wanted.value), error: '' }
  } catch (error) {
    return { mixed: null, error: (error as Error).message }
  }
})
const rounded = computed(() =>
  result.value.mixed && form.smallest_g > 0
    ? measured(
        result.value.mixed.lines.map(l => ({ name: l.name, amount: l.g })),
        form.smallest_g,
      )
    : [],
)
const least = computed(() =>
  result.value.mixed
    ? leastTotal(
        result.value.mixed.lines.map(l => ({ amount: l.g })),
        form.smallest_g || 0.1,
      )
    : 0,
)
const { data: pieces } = useLive('GET /api/pieces', topic => topic === 'pieces')
const pieceId = ref<number | null>(null)
/** So much in all, worked out from what is to be coated. */
function wantInAll(ml: number) {
  form.unit = 'total_ml'
  form.amount = ml
}
const { errors, busy, submit } = useSubmit('POST /api/batches', () => ({
  kind: 'mix',
  name: form.name,
  by: form.by,
  ingredients: form.rows,
  wanted: wanted.value,
  smallest_g: form.smallest_g,
  pot_min: form.pot_min,
  pieceId: pieceId.value,
}))
const amountError = computed(
  () => Object.entries(errors.value).find(([field]) => field.startsWith('wanted'))?.[1] ?? '',
)
/** What is wrong in a row, where something is. */
const rowError = (i: number) =>
  Object.entries(errors.value).find(([field]) => field.startsWith(`ingredients.${i}.`))?.[1] ?? ''
async function make() {
  const done = await submit({})
  if (done) emit('made', done.id)
}
</script>

<template>
  <div class="grid gap-4" data-test="mix-form">
    <div class="flex flex-wrap gap-2" role="group" :aria-label="w('mix.presets')">
      <button
        v-for="m in COMMON_MIXTURES"
        :key="m.slug"
        type="button"
        class="act act-quiet !min-h-11"
        @click="Object.assign(form, common(m.slug))"
      >
        {{ w(`mix.preset.${m.slug}`) }}
      </button>
    </div>
    <form class="grid gap-3" @submit.prevent="make">
      <div class="grid sm:grid-cols-[1fr_14rem_8rem_8rem] gap-3 items-end">
        <TextField v-model="form.name" :label="w('mix.name')" :error="errors.name" /><FindField
          v-model="pieceId"
          :label="w('mix.forPiece')"
          :options="[
            { value: null, label: w('mix.forShop') },
            ...(pieces ?? []).map(p => ({ value: p.id, label: `${p.id} ${p.name}` })),
          ]"
        /><ChoiceField
          v-model="form.by"
          :label="w('mix.by')"
          :options="[
            { value: 'volume', label: w('mix.volume') },
            { value: 'weight', label: w('mix.weight') },
          ]"
        /><NumberField v-model="form.pot_min" :label="w('mix.potLife')" :min="1" :error="errors.pot_min" />
      </div>
      <div class="overflow-x-auto">
        <table class="w-full min-w-[56rem]">
          <thead class="caption text-left">
            <tr>
              <th>{{ w('mix.ingredient') }}</th>
              <th>{{ w('mix.share') }}</th>
              <th>{{ w('mix.of') }}</th>
              <th>g/ml</th>
              <th class="text-right pl-4">ml</th>
              <th class="text-right">g</th>
              <th class="text-right">{{ w('mix.ladles') }}</th>
              <th class="text-right">{{ w('mix.weighed') }}</th>
              <td />
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in form.rows" :key="i" class="border-t border-line align-top">
              <td class="py-1 pr-2">
                <input
                  v-model="r.name"
                  class="field"
                  list="products"
                  :aria-label="`${w('mix.ingredient')} ${i + 1}`"
                  :aria-invalid="Boolean(rowError(i))"
                  @change="choose(r)"
                />
                <p v-if="rowError(i)" class="text-madder">{{ rowError(i) }}</p>
              </td>
              <td class="py-1 pr-2">
                <input
                  v-model.number="r.share"
                  type="number"
                  step="any"
                  min="0"
                  class="field !w-20"
                  :aria-label="`${w('mix.share')} ${i + 1}`"
                />
              </td>
              <td class="py-1 pr-2">
                <ChoiceField
                  v-model="r.of"
                  :label="`${w('mix.of')} ${i + 1}`"
                  label-hidden
                  :options="optionsOf(SHARES_OF, o => w(`mix.shareOf.${o}`))"
                  :disabled="i === 0"
                  class="w-44"
                />
              </td>
              <td class="py-1 pr-2">
                <input
                  v-model.number="r.density_g_ml"
                  type="number"
                  step="any"
                  min="0"
                  class="field !w-20"
                  :aria-label="`g/ml ${i + 1}`"
                />
              </td>
              <template v-if="result.mixed?.lines[i]">
                <td class="text-right clock py-3 pl-4">{{ result.mixed.lines[i]!.ml.toFixed(1) }}</td>
                <td class="text-right clock py-3 pl-4">{{ result.mixed.lines[i]!.g.toFixed(1) }}</td>
                <td class="text-right clock py-3 pl-4">{{ ladles(result.mixed.lines[i]!.ml, form.ladle_ml || 60) }}</td>
                <td class="text-right clock py-3 pl-4" data-test="weighed">
                  {{ rounded[i]?.measure.toFixed(form.smallest_g < 0.1 ? 2 : form.smallest_g < 1 ? 1 : 0) }} g<strong
                    v-if="Math.abs(rounded[i]?.error ?? 0) > SHOWN_ERROR"
                    class="block text-ochre"
                    >{{ (rounded[i]!.error * 100).toFixed(0) }} %</strong
                  >
                </td> </template
              ><template v-else><td colspan="4" /></template>
              <td>
                <button
                  v-if="i > 0"
                  type="button"
                  class="min-h-11 min-w-11 underline"
                  :aria-label="`${w('remove')} ${r.name}`"
                  @click="form.rows.splice(i, 1)"
                >
                  ×
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <datalist id="products"><option v-for="p in products" :key="p.id" :value="p.name" /></datalist>
      </div>
      <p v-if="result.error" class="verdict verdict-stop" role="alert">{{ result.error }}</p>
      <p v-else-if="result.mixed" class="flex flex-wrap gap-x-2 items-baseline">
        <strong class="clock"
          >{{ result.mixed.total_ml.toFixed(0) }} ml · {{ result.mixed.total_g.toFixed(0) }} g</strong
        ><template v-if="result.mixed.solids !== null">
          · {{ w('mix.solids', { pct: (result.mixed.solids * 100).toFixed(0) }) }}</template
        ><span v-if="result.mixed.total_g < least" class="text-ochre">{{
          w('mix.least', { g: Math.ceil(least) })
        }}</span>
      </p>
      <div class="grid sm:grid-cols-[9rem_1fr_1fr_9rem_9rem] gap-3 items-end">
        <NumberField v-model="form.amount" :label="w('mix.wanted')" :min="0" step="any" :error="amountError" />
        <ChoiceField
          v-model="form.unit"
          :label="w('mix.unit')"
          :options="optionsOf(['total_ml', 'total_g', 'can_ml', 'can_g'], u => w(`mix.units.${u}`))"
        />
        <ChoiceField
          v-if="form.unit.startsWith('can')"
          v-model="form.of"
          :label="w('mix.ofWhich')"
          :options="form.rows.map((r, i) => ({ value: i, label: r.name }))"
        /><span v-else />
        <NumberField
          v-model="form.smallest_g"
          :label="w('mix.smallest')"
          :min="0.01"
          step="any"
          :error="errors.smallest_g"
        />
        <label>{{ w('mix.ladle') }} <input v-model.number="form.ladle_ml" type="number" min="1" class="field" /></label>
      </div>
      <MixForArea :piece-id="pieceId" @amount="wantInAll" />
      <p v-for="c in cautions" :key="c" class="verdict" data-test="caution">{{ cautionText(c) }}</p>
      <div class="flex gap-3">
        <button class="act" :disabled="!result.mixed || busy">{{ w('mix.begin') }}</button><button
          type="button"
          class="act act-quiet"
          @click="add()"
        >
          {{ w('mix.addRow') }}
        </button>
      </div>
    </form>
  </div>
</template>
