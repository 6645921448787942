<script setup lang="ts">
/** A counting round: one can after the other, place by place; a scanned label is the next. */
import { quantitySaid } from '#core/store'

const props = defineProps<{ products: AnswerOf<'GET /api/store'>['products'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const at = ref(0)
const counted = ref(0)
const changed = ref(0)
const amount = ref<number | null>(null)
const scanning = ref(false)
/** By place, then by name; in the order that the round began with. */
const order = props.products
  .flatMap(p => p.lots.map(l => ({ id: l.id, place: l.place ?? '', name: p.name, code: l.code })))
  // what stands at no place is looked for last
  .sort(
    (a, b) =>
      Number(!a.place) - Number(!b.place) ||
      a.place.localeCompare(b.place) ||
      a.name.localeCompare(b.name) ||
      a.code.localeCompare(b.code),
  )
  .map(l => l.id)
const lots = computed(() => new Map(props.products.flatMap(p => p.lots).map(l => [l.id, l])))
const lot = computed(() => lots.value.get(order[at.value] ?? 0) ?? null)
watch(at, () => (amount.value = null))
async function count(real: number, word = '') {
  const { id, row_version, left_amount } = lot.value!
  const act = { kind: 'count' as const, amount: real, word }
  if (!(await send('POST /api/lots/:id/acts', { id, body: { rowVersion: row_version, act } }))) return
  counted.value++
  if (Math.abs(real - left_amount) > 0.005) changed.value++
  at.value++
  emit('changed')
}
function scanned(text: string) {
  scanning.value = false
  const id = Number(/\/lots\/(\d+)$/.exec(text)?.[1])
  const found = order.indexOf(id)
  if (found < 0) useNotes().show(w('store.round.other'), 'stop')
  else at.value = found
}
function again() {
  at.value = counted.value = changed.value = 0
}
</script>

<template>
  <section class="max-w-xl" data-test="round">
    <h1>{{ w('store.round.title') }}</h1>
    <p class="caption">{{ w('store.round.why') }}</p>
    <p v-if="!order.length" class="row">{{ w('store.round.none') }}</p>
    <div v-else-if="at >= order.length" class="row grid gap-3">
      <p>{{ w('store.round.done', { counted, changed }) }}</p>
      <button class="act justify-self-start" @click="again">{{ w('store.round.again') }}</button>
    </div>
    <form v-else class="grid gap-3 mt-3" @submit.prevent="amount !== null && count(amount)">
      <p class="caption">
        {{ w('store.round.of', { at: at + 1, n: order.length }) }} · {{ lot?.place ?? w('store.round.noPlace') }}
      </p>
      <template v-if="lot">
        <p class="text-2xl font-bold">
          {{ lot.name }} <span class="caption">{{ lot.code }}</span>
        </p>
        <p class="clock">{{ w('store.round.book', { amount: quantitySaid(lot.left_amount, lot.unit) }) }}</p>
        <template v-if="session.may('store')">
          <NumberField
            v-model="amount"
            :label="w('store.amount', { unit: w(`store.unit.${lot.unit}`) })"
            step="any"
            :min="0"
          />
          <div class="flex flex-wrap gap-3">
            <button class="act" :disabled="amount === null">{{ w('store.round.counted') }}</button>
            <button type="button" class="act act-quiet" @click="count(lot.left_amount)">
              {{ w('store.round.same') }}
            </button>
            <button type="button" class="act act-quiet" @click="count(0, w('store.round.goneWord'))">
              {{ w('store.round.gone') }}
            </button>
          </div>
        </template>
      </template>
      <div class="flex flex-wrap gap-3">
        <button type="button" class="act act-quiet" @click="at++">{{ w('store.round.next') }}</button>
        <button v-if="at > 0" type="button" class="act act-quiet" @click="at--">{{ w('store.round.back') }}</button>
        <button type="button" class="act act-quiet" @click="scanning = !scanning">{{ w('store.round.scan') }}</button>
      </div>
      <LazyScanCode v-if="scanning" @read="scanned" />
    </form>
  </section>
</template>
