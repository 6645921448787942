<script setup lang="ts">
import { chanceBy, dayOf, HONEST, type Lived, together } from '#core/schedule/promise'
import { HELPS } from '#shared/schemas/rooms'

/** What can be promised for this piece, worked out by living the shop's schedule through many times. */
const props = defineProps<{ piece: PiecePage['piece'] }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const session = useSession()
const { day, percent } = useFormat()
const PARTS = 8
const parts = shallowRef<Lived[]>([])
const error = ref('')
let open = true
onUnmounted(() => (open = false))
onMounted(async () => {
  for (let part = 1; part <= PARTS && open; part++)
    try {
      parts.value = [...parts.value, await call('GET /api/pieces/:id/promise', { id: props.piece.id, query: { part } })]
    } catch (e) {
      error.value = problem(e).message
      return
    }
})
const lived = computed(() => together(parts.value))
const days = computed(() => ({
  ...{ likely: dayOf(lived.value, 0.5), honest: dayOf(lived.value, HONEST), safe: dayOf(lived.value, 0.9) },
}))
/** Days on which it may leave, from the first that is likely enough to the last that matters. */
const rows = computed(() =>
  lived.value.days
    .map(d => ({ day: d.day, chance: chanceBy(lived.value, d.day) }))
    .filter((d, i, all) => d.chance >= 0.05 && (i === 0 || all[i - 1]!.chance < 0.99)),
)
const chosen = ref<string | null>(props.piece.due_on)
const chance = computed(() => (chosen.value ? chanceBy(lived.value, chosen.value) : null))
/** What would help the chosen day, as each is worked out. */
const help = shallowRef<NonNullable<AnswerOf<'POST /api/pieces/:id/promise'>['help']>[]>([])
const tried = ref(0)
const asking = ref(false)
watch(chosen, () => {
  help.value = []
  tried.value = 0
})
async function ask() {
  const by = chosen.value!
  help.value = []
  tried.value = 0
  asking.value = true
  error.value = ''
  try {
    for (const kind of HELPS) {
      const { help: found } = await sendOnce('POST /api/pieces/:id/promise', { id: props.piece.id, body: { by, kind } })
      if (!open || chosen.value !== by) break
      if (found) help.value = [...help.value, found]
      tried.value++
    }
  } catch (e) {
    error.value = problem(e).message
  }
  asking.value = false
}
async function promise() {
  const body = { rowVersion: props.piece.row_version, dueOn: chosen.value }
  if (await send('PATCH /api/pieces/:id', { id: props.piece.id, body })) emit('changed')
}
</script>

<template>
  <DialogBox :title="w('promise.title')" @close="emit('close')">
    <ProgressLine v-if="parts.length < PARTS && !error" :label="w('promise.living')" :done="parts.length / PARTS" />
    <p v-if="error" class="text-madder" role="alert">{{ error }}</p>
    <template v-if="parts.length">
      <dl class="grid grid-cols-3 gap-3 my-3" data-test="promise-days">
        <div v-for="(value, key) in days" :key="key">
          <dt class="caption">{{ w(`promise.${key}`) }}</dt>
          <dd class="text-lg font-semibold">{{ value ? day(value) : w('promise.notAhead') }}</dd>
        </div>
      </dl>
      <ul class="max-h-64 overflow-auto" :aria-label="w('promise.byDay')">
        <li v-for="d in rows" :key="d.day">
          <button
            type="button"
            class="grid grid-cols-[6.5rem_1fr_4rem] gap-3 items-center w-full min-h-11 text-left px-1"
            :class="chosen === d.day ? 'outline outline-2 outline-verdigris' : ''"
            :aria-pressed="chosen === d.day"
            @click="chosen = d.day"
          >
            <span>{{ day(d.day) }}</span>
            <span class="h-3 border border-line" aria-hidden="true"
              ><span
                class="block h-full"
                :class="d.chance >= HONEST ? 'bg-moss' : 'bg-ochre'"
                :style="{ width: `${d.chance * 100}%` }" /></span
            ><span class="clock text-right">{{ percent(d.chance) }}</span>
          </button>
        </li>
      </ul>
      <p class="caption mt-2">{{ w('promise.how', { n: lived.runs }) }}</p>
      <DateField v-model="chosen" class="mt-3" :label="w('promise.day')" />
      <p
        v-if="chance !== null"
        class="verdict mt-3"
        :class="chance < HONEST ? 'verdict-warn' : ''"
        data-test="promise-chance"
      >
        {{
          w(chance < HONEST ? 'promise.low' : 'promise.high', {
            percent: percent(chance),
            honest: days.honest ? day(days.honest) : w('promise.notAhead'),
          })
        }}
      </p>
      <template v-if="chosen && chance !== null && chance < HONEST">
        <button v-if="!asking && tried < HELPS.length" class="act act-quiet mt-3" @click="ask">
          {{ w('promise.whatHelps') }}
        </button>
        <ProgressLine v-if="asking" class="mt-3" :label="w('promise.trying')" :done="tried / HELPS.length" />
        <ul v-if="help.length" class="mt-3" data-test="promise-help">
          <li class="row grid grid-cols-[1fr_4rem]">
            <span>{{ w('promise.help.as-it-is') }}</span><span class="clock text-right">{{
              percent(help[0]!.asItIs)
            }}</span>
          </li>
          <li v-for="h in help" :key="h.kind" class="row">
            <span class="grid grid-cols-[1fr_4rem]"
              ><strong>{{ w(`promise.help.${h.kind}`) }}</strong
              ><span class="clock text-right">{{ percent(h.chance) }}</span></span
            >
            <span
              v-for="l in h.later.slice(0, 3)"
              :key="l.pieceId"
              class="caption block"
              :class="l.late ? 'text-madder' : ''"
              >{{
                w(l.late ? 'promise.laterLate' : 'promise.later', { piece: `${l.pieceId} ${l.piece}`, n: l.days })
              }}</span
            >
          </li>
        </ul>
      </template>
    </template>
    <div class="flex flex-wrap gap-3 mt-4">
      <button v-if="session.may('take-in') && chosen !== piece.due_on" class="act" @click="promise">
        {{ chosen ? w('promise.promise', { day: day(chosen) }) : w('promise.none') }}
      </button>
      <button class="act act-quiet" @click="emit('close')">{{ w('close') }}</button>
    </div>
  </DialogBox>
</template>
