<script setup lang="ts">
/** One fault: the most telling question, suspects with what speaks for and against, the mend, the cause in the end. */
import { FACTS } from '#core/diagnose'

type Fault = AnswerOf<'GET /api/pieces/:id/faults'>['faults'][number]
type Suspect = Fault['suspects'][number]
const props = defineProps<{ fault: Fault; can: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { dayTime, percent } = useFormat()
const beyond = ref(false)
const keepNext = ref(true)
const note = ref('')
const version = computed(() => ({ rowVersion: props.fault.rowVersion }))
const changed = (done: unknown) => {
  if (done) emit('changed')
}
const id = computed(() => props.fault.id)
const say = async (ask: string, yes: boolean | null, undo = false) =>
  changed(await send('PUT /api/faults/:id/said', { id: id.value, body: { ...version.value, ask, yes, undo } }))
async function mend({ mend: slug }: Suspect) {
  const done = await send('POST /api/faults/:id/mend', { id: id.value, body: { ...version.value, mend: slug } })
  beyond.value = Boolean(done?.beyond)
  changed(done)
}
const takeOut = async () => changed(await send('DELETE /api/faults/:id/mend', { id: id.value, query: version.value }))
const found = async (cause: string | null) =>
  changed(
    await send('PUT /api/faults/:id/cause', {
      id: id.value,
      body: { ...version.value, cause, keepNext: keepNext.value, note: note.value },
    }),
  )
const drop = async () => changed(await send('DELETE /api/faults/:id', { id: id.value, query: version.value }))
const reasonsOf = (reasons: Suspect['pro']) =>
  reasons
    .map(r => (r.fact ? FACTS[r.fact] : w(r.yes ? 'fault.isYes' : 'fault.isNo', { asks: r.asks ?? '' })))
    .join(' · ')
const first = computed(() => props.fault.next[0] ?? null)
const word = (yes: boolean | null) => {
  if (yes === null) return 'unknown'
  return yes ? 'yes' : 'no'
}
const mended = computed(() => props.fault.suspects.find(s => s.mend === props.fault.mend)?.mendSays ?? '')
const cause = computed(() => props.fault.suspects.find(s => s.cause === props.fault.cause)?.says ?? '')
/** The likeliest, and others that are not far behind, or were found. */
const shown = computed(() => props.fault.suspects.filter((s, i) => i === 0 || s.certainty > 0.08))
/** One likelier is mended the same way. */
const above = (s: Suspect) => shown.value.findIndex(x => x.mend === s.mend) < shown.value.indexOf(s)
</script>

<template>
  <article class="row grid gap-3" data-test="fault" :data-sign="fault.sign">
    <p class="flex flex-wrap gap-x-4 items-baseline">
      <strong class="text-xl">{{ fault.name }}</strong>
      <span class="caption">{{ fault.by }}, {{ dayTime(fault.at) }}</span>
    </p>
    <p v-if="!fault.mendedAt && !fault.cause" class="verdict">{{ w('fault.atOnce', { says: fault.now }) }}</p>
    <p class="caption">
      {{
        fault.facts.length
          ? w('fault.known', { facts: fault.facts.map(f => FACTS[f]).join(', ') })
          : w('fault.knownNone')
      }}
    </p>
    <section v-if="can && !fault.cause" data-test="question">
      <template v-if="first">
        <h3>{{ w('fault.ask') }}</h3>
        <p class="text-lg font-bold">{{ first.asks }}</p>
        <div class="flex flex-wrap gap-2 mt-2">
          <button class="act" @click="say(first.ask, true)">{{ w('fault.yes') }}</button>
          <button class="act" @click="say(first.ask, false)">{{ w('fault.no') }}</button>
          <button class="act act-quiet" @click="say(first.ask, null)">{{ w('fault.unknown') }}</button>
        </div>
      </template>
      <p v-else class="caption">{{ w('fault.enough') }}</p>
    </section>
    <ul v-if="fault.said.length">
      <li v-for="a in fault.said" :key="a.ask" class="flex flex-wrap gap-x-3 items-center">
        {{ a.asks }} <strong>{{ w(`fault.said.${word(a.yes)}`) }}</strong>
        <button v-if="can && !fault.cause" class="underline min-h-11" @click="say(a.ask, a.yes, true)">
          {{ w('fault.takeBack') }}
        </button>
      </li>
    </ul>
    <ol class="grid gap-3">
      <li v-for="s in shown" :key="s.cause" class="bg-sheet p-3 grid gap-1" data-test="suspect" :data-cause="s.cause">
        <p class="flex flex-wrap gap-x-4 items-baseline">
          <strong class="grow">{{ s.says }}</strong><span class="clock font-bold">{{ percent(s.certainty) }}</span>
        </p>
        <svg viewBox="0 0 100 4" class="h-1.5 w-full" preserveAspectRatio="none" aria-hidden="true">
          <rect width="100" height="4" fill="var(--color-line)" />
          <rect :width="100 * s.certainty" height="4" fill="var(--color-slate)" />
        </svg>
        <p v-if="s.pro.length" class="caption">{{ w('fault.pro', { reasons: reasonsOf(s.pro) }) }}</p>
        <p v-if="s.contra.length" class="caption">{{ w('fault.contra', { reasons: reasonsOf(s.contra) }) }}</p>
        <p v-if="above(s)">{{ w('fault.mendAbove') }}</p>
        <p v-else>
          {{ w('fault.mend', { says: s.mendSays }) }}.
          <span v-if="s.steps" class="caption">{{ w('fault.putSteps', { n: s.steps }) }}</span>
          <strong v-if="s.inPlan">{{ w('fault.inPlan') }}</strong>
        </p>
        <p class="caption">{{ w('fault.next', { says: s.next }) }}</p>
        <div v-if="can" class="flex flex-wrap gap-2">
          <button
            v-if="s.steps && !above(s) && !fault.mendedAt && session.may('edit-plan')"
            class="act"
            data-test="mend"
            @click="mend(s)"
          >
            {{ w('fault.put') }}
          </button>
          <NuxtLink
            v-if="s.anew && !above(s) && !fault.mendedAt"
            class="act no-underline"
            :to="`/pieces/${fault.pieceId}/route`"
            >{{ w('fault.anew') }}</NuxtLink
          >
          <button v-if="!fault.cause" class="act act-quiet" data-test="it-was" @click="found(s.cause)">
            {{ w('fault.itWas') }}
          </button>
        </div>
      </li>
    </ol>
    <p v-if="fault.mendedAt" class="verdict" data-test="mended">
      {{ w('fault.put1', { at: dayTime(fault.mendedAt), says: mended }) }}
      <button v-if="can && session.may('edit-plan')" class="underline min-h-11" @click="takeOut">
        {{ w('fault.takeOut') }}
      </button>
    </p>
    <p v-if="beyond" class="verdict verdict-stop">
      <NuxtLink class="underline" :to="`/pieces/${fault.pieceId}/client`">{{ w('fault.beyond') }}</NuxtLink>
    </p>
    <p v-if="fault.cause" data-test="cause">
      <strong>{{ w('fault.wasIt', { says: cause }) }}</strong> {{ fault.note }}
      <button v-if="can" class="underline min-h-11" @click="found(null)">{{ w('fault.openAgain') }}</button>
    </p>
    <div v-else-if="can" class="grid gap-2 sm:grid-cols-2">
      <label>{{ w('fault.note') }} <input v-model="note" class="field" maxlength="300" /></label>
      <SwitchField v-model="keepNext" :label="w('fault.keep')" />
      <button v-if="!fault.mendedAt" class="act act-quiet justify-self-start" @click="drop">
        {{ w('fault.drop') }}
      </button>
    </div>
    <WhyNote :label="w('plan.whence')">{{ w('fault.whence', { n: fault.cases }) }}</WhyNote>
  </article>
</template>
