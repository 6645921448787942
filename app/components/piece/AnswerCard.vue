<script setup lang="ts">
import type { AnswerLine } from '~/composables/bench'

/** One question to a client: what was asked, what came back, and what staff can do about it. */
const props = defineProps<{ answer: AnswerLine; showPiece?: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { money, dayTime, day } = useFormat()
const reply = ref('')
const name = ref(props.answer.client)
const via = ref<'phone' | 'counter'>('phone')
const can = computed(() => session.may('quote'))
const colour = {
  open: 'text-slate',
  yes: 'text-moss',
  no: 'text-madder',
  superseded: 'text-soft',
  expired: 'text-ochre',
} as const
async function record(answer: 'yes' | 'no' | 'replace' | 'match' | 'leave') {
  if (
    await send('POST /api/approvals/:id/answer', {
      id: props.answer.id,
      body: {
        answer,
        via: via.value,
        name: name.value,
        says: '',
      },
    })
  )
    emit('changed')
}
async function say() {
  if (await send('POST /api/approvals/:id/words', { id: props.answer.id, body: { says: reply.value } })) {
    reply.value = ''
    emit('changed')
  }
}
/** Why its letter may not have arrived. */
const trouble = computed(() => (['perhaps', 'failed'] as const).find(state => state === props.answer.mail?.state))
const to = ref(props.answer.mail?.to ?? '')
async function again() {
  const { id, rowVersion } = props.answer.mail!
  if (await send('POST /api/mails/:id/again', { id, body: { rowVersion, to: to.value } })) emit('changed')
}
const unanswered = computed(() => props.answer.words.at(-1)?.side === 'client')
</script>

<template>
  <article class="row" data-test="answer" :data-state="answer.state">
    <p class="flex flex-wrap gap-x-4 items-baseline">
      <NuxtLink v-if="showPiece" :to="`/pieces/${answer.pieceId}/client`" class="text-lg font-bold no-underline"
        >{{ answer.pieceId }} {{ answer.piece }}</NuxtLink
      >
      <strong :class="colour[answer.state]">{{ w(`answer.${answer.state}`) }}</strong>
      <strong v-if="answer.choice">{{ w(`parts.answer.${answer.choice}`) }}</strong>
      <span v-if="answer.question">{{ answer.question }}</span>
      <span v-else-if="session.may('see-prices')" class="clock"
        >{{ money(answer.likely_minor) }}, {{ w('worst') }} {{ money(answer.worst_minor) }}</span
      >
    </p>
    <p class="caption">
      {{ answer.client }} · {{ w('client.askedBy', { name: answer.askedBy, at: dayTime(answer.askedAt) }) }} ·
      {{ w(`client.mails.${answer.mail?.state ?? 'none'}`)
      }}<strong v-if="answer.mail?.state === 'waiting' && answer.mail.error" class="text-madder"
        >: {{ answer.mail.error }}</strong
      ><template v-if="answer.state === 'open'">
        · {{ w('client.until', { day: day(answer.expiresAt) })
        }}<template v-if="answer.holds"> · {{ w('client.holds', { n: answer.holds }) }}</template></template
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
        <template v-if="answer.about === 'item'"
          ><button v-for="c in ['replace', 'match', 'leave'] as const" :key="c" class="act" @click="record(c)">
            {{ w(`parts.answer.${c}`) }}
          </button></template
        >
        <template v-else
          ><button class="act" @click="record('yes')">{{ w('client.saidYes') }}</button
          ><button class="act act-stop" @click="record('no')">{{ w('client.saidNo') }}</button></template
        >
      </div>
    </FoldOut>
    <p class="caption break-all">SHA-256 {{ answer.digest.slice(0, 16) }}…</p>
  </article>
</template>
