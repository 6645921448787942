<script setup lang="ts">
import type { AnswerLine } from '~/composables/bench'

/** One question to a client: what was asked, what came back, and what staff can do about it. */
const props = defineProps<{ answer: AnswerLine; showPiece?: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { money, sum, dayTime, day } = useFormat()
const reply = ref('')
const name = ref(props.answer.client)
const via = ref<'phone' | 'counter'>('phone')
const can = computed(() => session.may('quote'))
const colour = {
  open: 'text-slate',
  yes: 'text-moss',
  no: 'text-madder',
  talk: 'text-ochre',
  superseded: 'text-soft',
  expired: 'text-ochre',
} as const
type Reply = number | 'no' | 'talk'
const replies = ref<Record<number, Reply>>({})
const open = computed(() => props.answer.items.filter(i => i.state === 'open'))
const optionsOf = (i: AnswerLine['items'][number]): Option<Reply>[] => [
  ...i.options.map((label, value) => ({ value, label: i.options.length > 1 ? label : w('client.saidYes') })),
  ...(i.kind === 'hardware' ? [] : [{ value: 'no' as const, label: w('client.saidNo') }]),
  { value: 'talk' as const, label: w('letter.choose.talk') },
]
async function record() {
  const said = open.value.flatMap(({ no }) => {
    const reply = replies.value[no]
    return reply === undefined ? [] : [{ no, reply }]
  })
  if (said.length === 0) return useNotes().show(w('client.choose'), 'stop')
  const body = { replies: said, via: via.value, name: name.value, says: '' }
  const done = await send('POST /api/approvals/:id/answer', { id: props.answer.id, body })
  if (!done) return
  if (!done.holds) useNotes().show(w('client.holdsNot'), 'stop')
  replies.value = {}
  emit('changed')
}
/** What it costs by now, beside what was shown; worked out once the card is in sight. */
const card = useTemplateRef('card')
const inSight = useElementVisibility(card)
const since = ref<AnswerOf<'GET /api/approvals/:id/since'>['since']>(null)
const priced = computed(
  () => props.answer.state === 'open' && props.answer.readySafe !== null && session.may('see-prices'),
)
watch([inSight, () => props.answer], async () => {
  if (!inSight.value) return
  const { id } = props.answer
  since.value = priced.value
    ? await call('GET /api/approvals/:id/since', { id }).then(
        a => a.since,
        () => null,
      )
    : null
})
/** Who was asked by whom, how, and how long it waits. */
const told = computed(() => {
  const a = props.answer
  const waits = a.state === 'open'
  return [
    a.client,
    w('client.askedBy', { name: a.askedBy, at: dayTime(a.askedAt) }),
    waits && a.dueOn && w('client.promisedFor', { day: day(a.dueOn) }),
    waits && w('client.until', { day: day(a.expiresAt) }),
    waits && a.reminded > 0 && w('client.reminded', { n: a.reminded }),
    w(`client.mails.${a.mail?.state ?? 'none'}`),
  ].filter(Boolean)
})
/** An item's answer in words. */
const saidTo = (i: AnswerLine['items'][number]) =>
  typeof i.reply === 'number' && i.options.length > 1 ? i.options[i.reply]! : w(`answer.${i.state as 'yes'}`)
async function say() {
  if (await send('POST /api/approvals/:id/words', { id: props.answer.id, body: { says: reply.value } })) {
    reply.value = ''
    emit('changed')
  }
}
/** Why its letter may not have arrived. */
const trouble = computed(() =>
  (['perhaps', 'failed', 'back'] as const).find(state => state === props.answer.mail?.state),
)
const to = ref(props.answer.mail?.to ?? '')
async function again() {
  const { id, rowVersion } = props.answer.mail!
  if (await send('POST /api/mails/:id/again', { id, body: { rowVersion, to: to.value } })) emit('changed')
}
const returned = ref('')
async function cameBack() {
  const { id, rowVersion } = props.answer.mail!
  if (await send('POST /api/mails/:id/back', { id, body: { rowVersion, says: returned.value } })) emit('changed')
}
/** Whether the timetable has days for what hangs on it. */
const dated = computed(() => props.answer.hangs.some(h => h.at))
const unanswered = computed(() => props.answer.words.at(-1)?.side === 'client')
</script>

<template>
  <article ref="card" class="row" data-test="answer" :data-state="answer.state">
    <p class="flex flex-wrap gap-x-4 items-baseline">
      <NuxtLink v-if="showPiece" :to="`/pieces/${answer.pieceId}/client`" class="text-lg font-bold no-underline"
        >{{ answer.pieceId }} {{ answer.piece }}</NuxtLink
      >
      <strong :class="colour[answer.state]">{{ w(`answer.${answer.state}`) }}</strong>
      <span v-if="answer.readySafe && session.may('see-prices')" class="clock">{{
        sum(answer.likely_minor, answer.worst_minor)
      }}</span>
    </p>
    <ul class="mt-1">
      <li v-for="i in answer.items" :key="i.no" data-test="answer-item">
        <strong>{{ saidTo(i) }}</strong> · {{ i.says || i.title }}
      </li>
    </ul>
    <p v-if="since" :class="since.beyond ? 'verdict verdict-stop' : 'caption'" data-test="since">
      {{
        w(since.beyond ? 'client.sinceBeyond' : 'client.sinceWithin', {
          sum: money(since.worst_minor),
          day: day(since.readySafe),
        })
      }}
    </p>
    <p class="caption">
      {{ told.join(' · ')
      }}<strong v-if="answer.mail?.state === 'waiting' && answer.mail.error" class="text-madder"
        >: {{ answer.mail.error }}</strong
      >
    </p>
    <form v-if="trouble" class="verdict verdict-stop grid gap-2" data-test="mail-trouble" @submit.prevent="again">
      <p>
        {{ w(`client.mailTrouble.${trouble}`) }} <span class="caption">{{ answer.mail?.error }}</span>
      </p>
      <p v-if="can" class="flex gap-2">
        <input
          v-model="to"
          type="email"
          class="field"
          :aria-label="w('client.address')"
          required
          maxlength="200"
        /><button class="act act-quiet shrink-0">{{ w('client.sendAgain') }}</button>
      </p>
    </form>
    <p v-if="answer.answeredAt">
      {{ answer.name }}, {{ dayTime(answer.answeredAt) }}, {{ answer.via ? w(`via.${answer.via}`) : ''
      }}<template v-if="answer.recordedBy">, {{ w('client.recordedBy', { name: answer.recordedBy }) }}</template
      ><template v-if="answer.says">: {{ answer.says }}</template>
    </p>
    <p v-for="word in answer.words" :key="word.at + word.side" class="mt-1">
      <strong>{{ word.side === 'client' ? answer.client : w('client.shop') }}:</strong> {{ word.says }}
      <span class="caption">{{ dayTime(word.at) }}</span>
    </p>
    <form v-if="can && unanswered" class="flex gap-2 mt-2" @submit.prevent="say">
      <input
        v-model="reply"
        class="field"
        :aria-label="w('client.reply')"
        :placeholder="w('client.reply')"
        required
        maxlength="1000"
      /><button class="act">{{ w('client.send') }}</button>
    </form>
    <FoldOut v-if="answer.hangs.length" class="mt-2" :title="w('client.holds', { n: answer.hangs.length })">
      <ol data-test="hangs">
        <li v-for="(step, i) in answer.hangs" :key="i" class="flex gap-3">
          <span v-if="dated" class="clock shrink-0 w-24">{{ step.at ? day(step.at) : '' }}</span><span>{{
            step.says
          }}</span>
        </li>
      </ol>
      <p class="caption">{{ w(dated ? 'client.holdsWhen' : 'client.holdsNoDay') }}</p>
    </FoldOut>
    <FoldOut v-if="can && answer.state === 'open'" class="mt-2" :title="w('client.record')">
      <div class="flex flex-wrap gap-2 items-end">
        <label class="grow">{{ w('client.who') }} <input v-model="name" class="field" /></label>
        <ChoiceField
          v-model="via"
          :label="w('client.how')"
          :options="[
            { value: 'phone', label: w('via.phone') },
            { value: 'counter', label: w('via.counter') },
          ]"
        />
        <RadioField
          v-for="i in open"
          :key="i.no"
          v-model="replies[i.no]"
          class="basis-full"
          :label="i.says || i.title"
          :options="optionsOf(i)"
        />
        <button class="act" @click="record">{{ w('client.recordIt') }}</button>
      </div>
    </FoldOut>
    <FoldOut
      v-if="can && answer.state === 'open' && answer.mail?.state === 'sent'"
      class="mt-2"
      :title="w('client.cameBack')"
    >
      <form class="flex flex-wrap gap-2 items-end" @submit.prevent="cameBack">
        <label class="grow"
          >{{ w('client.cameBackWhy') }} <input v-model="returned" class="field" maxlength="200" /></label
        ><button class="act act-quiet">{{ w('client.recordIt') }}</button>
      </form>
    </FoldOut>
    <p class="caption break-all">SHA-256 {{ answer.digest.slice(0, 16) }}…</p>
  </article>
</template>
