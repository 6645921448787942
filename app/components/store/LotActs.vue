<script setup lang="ts">
/** What is done with a can: one choice, then the one or two figures that it wants. */
type Lot = AnswerOf<'GET /api/lots/:id'>['lot']
const props = defineProps<{ lot: Lot }>()
const emit = defineEmits<{ changed: [] }>()
const KINDS = ['count', 'weigh', 'take', 'return', 'spill', 'move', 'keep', 'open', 'skin', 'strain', 'throw'] as const
type Kind = (typeof KINDS)[number]
const weighs = computed(() => props.lot.unit === 'ml' || props.lot.unit === 'g')
const kinds = computed(() =>
  KINDS.filter(k => {
    if (k === 'weigh') return weighs.value
    if (k === 'open') return props.lot.opened_on === null
    if (k === 'skin') return props.lot.unit === 'ml' && !props.lot.skinned_on
    return k !== 'strain' || Boolean(props.lot.skinned_on)
  }),
)
const kind = ref<Kind | null>(null)
const amount = ref<number | null>(null)
const gross = ref<number | null>(null)
const tare = ref<number | null>(props.lot.tare_g)
const word = ref('')
const place = ref(props.lot.place ?? '')
const pieceId = ref<number | null>(props.lot.kept_for)
const pieces = ref<{ value: number; label: string }[]>([])
async function choose(next: Kind) {
  kind.value = kind.value === next ? null : next
  amount.value = next === 'count' ? Math.round(props.lot.left_amount) : null
  if ((next === 'take' || next === 'return' || next === 'keep') && pieces.value.length === 0)
    pieces.value = ((await call('GET /api/pieces', { query: { state: 'active' } })) ?? []).map(p => ({
      ...{ value: p.id, label: `${p.id} ${p.name}` },
    }))
}
const act = (): object => {
  switch (kind.value) {
    case 'weigh':
      return { kind: 'weigh', gross_g: gross.value, tare_g: tare.value }
    case 'count':
    case 'spill':
      return { kind: kind.value, amount: amount.value, word: word.value }
    case 'take':
      return { kind: 'take', amount: amount.value, pieceId: pieceId.value, word: word.value }
    case 'return':
      return { kind: 'return', amount: amount.value, pieceId: pieceId.value }
    case 'throw':
      return { kind: 'throw', word: word.value }
    case 'move':
      return { kind: 'move', place: place.value.trim() || null }
    case 'keep':
      return { kind: 'keep', pieceId: pieceId.value }
    default:
      return { kind: kind.value ?? 'back' }
  }
}
const { errors, busy, submit } = useSubmit('POST /api/lots/:id/acts', () => ({
  ...{ rowVersion: props.lot.row_version, act: act() },
}))
const error = (field: string) => errors.value[`act.${field}`]
async function save() {
  if (!(await submit({ id: props.lot.id }))) return
  kind.value = null
  word.value = ''
  emit('changed')
}
const wants = (...of: Kind[]) => kind.value !== null && of.includes(kind.value)
</script>

<template>
  <form class="grid gap-3" data-test="lot-acts" @submit.prevent="save">
    <button v-if="lot.gone_at" class="act justify-self-start" :disabled="busy">{{ w('lot.do.back') }}</button>
    <template v-else>
      <div class="flex flex-wrap gap-2">
        <button v-for="k in kinds" :key="k" type="button" class="chip" :aria-pressed="kind === k" @click="choose(k)">
          {{ w(`lot.do.${k}`) }}
        </button>
      </div>
      <NumberField
        v-if="wants('count', 'take', 'return', 'spill')"
        v-model="amount"
        :label="w('store.amount', { unit: w(`store.unit.${lot.unit}`) })"
        step="any"
        :min="0"
        :error="error('amount')"
      />
      <template v-if="wants('weigh')">
        <NumberField v-model="gross" :label="w('lot.gross')" step="any" :min="0" :error="error('gross_g')" />
        <NumberField v-model="tare" :label="w('lot.tare')" step="any" :min="0" :error="error('tare_g')" />
      </template>
      <FindField
        v-if="wants('take', 'return', 'keep')"
        v-model="pieceId"
        :label="w('lot.piece')"
        :options="wants('keep') ? [{ value: null, label: w('lot.anyPiece') }, ...pieces] : pieces"
        :error="error('pieceId')"
      />
      <TextField v-if="wants('move')" v-model="place" :label="w('store.place')" :error="error('place')" />
      <TextField
        v-if="wants('count', 'spill', 'take', 'throw')"
        v-model="word"
        :label="w('lot.word')"
        :error="error('word')"
      />
      <button v-if="kind" class="act justify-self-start" :disabled="busy">{{ w(`lot.do.${kind}`) }}</button>
    </template>
  </form>
</template>
