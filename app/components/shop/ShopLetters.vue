<script setup lang="ts">
/** The house's own words: in letters of each kind, as they would arrive, and at the foot of clients' pages. */
import { LETTER_KINDS, type LetterKind, letterOf, USUAL_WORDS } from '#core/papers'

const props = defineProps<{ shop: AnswerOf<'GET /api/shop'> }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const kind = ref<LetterKind>('ask')
const ownOf = (which: LetterKind) => props.shop.letterWords.find(x => x.kind === which)
const { draft, errors, submit } = useForm('PUT /api/shop/letters', () => ({
  kind: kind.value,
  ...(ownOf(kind.value) ?? USUAL_WORDS[kind.value]),
}))
watch([kind, () => props.shop], () => {
  draft.value = { kind: kind.value, ...(ownOf(kind.value) ?? USUAL_WORDS[kind.value]) }
})
const page = ref(props.shop.page_words)
watch(
  () => props.shop.page_words,
  words => (page.value = words),
)
/** A letter as it would arrive, about a made-up piece. */
const shown = computed(() =>
  letterOf(
    kind.value,
    {
      ...{ shop: props.shop.name, piece: w('letters.somePiece'), who: w('letters.somebody') },
      ...{ says: w('letters.something'), link: 'https://…/answer/…' },
    },
    { subject: draft.value.subject ?? '', words: draft.value.words ?? '' },
  ),
)
const changed = async (done: unknown) => {
  if (done) emit('changed')
}
const save = async () => changed(await submit({}))
const usual = async () =>
  changed(await send('PUT /api/shop/letters', { body: { kind: kind.value, subject: '', words: '' } }))
const savePage = async () => changed(await send('PUT /api/shop/page-words', { body: { words: page.value } }))
</script>

<template>
  <section v-if="session.may('shop')" data-test="letters">
    <h2>{{ w('letters.title') }}</h2>
    <p class="caption">{{ w('letters.why', { piece: '{piece}', client: '{client}', shop: '{shop}' }) }}</p>
    <form class="grid gap-3 mt-2" @submit.prevent="save">
      <RadioField
        v-model="kind"
        :label="w('letters.kind')"
        :options="LETTER_KINDS.map(value => ({ value, label: w(`client.letter.${value}`) }))"
      />
      <TextField v-model="draft.subject as string" :label="w('letters.subject')" :error="errors.subject" />
      <label
        >{{ w('letters.words') }}
        <textarea v-model="draft.words" class="field" rows="3" maxlength="1000" />
        <span v-if="errors.words" class="text-madder block">{{ errors.words }}</span>
      </label>
      <figure class="bg-sheet p-4" data-test="letter-shown">
        <figcaption class="caption">{{ w('letters.asItArrives') }}</figcaption>
        <p class="font-bold">{{ shown.subject }}</p>
        <p class="whitespace-pre-line mt-2">{{ shown.text }}</p>
      </figure>
      <p class="flex flex-wrap gap-3">
        <button class="act">{{ w('save') }}</button>
        <button v-if="ownOf(kind)" type="button" class="act act-quiet" @click="usual">{{ w('letters.usual') }}</button>
      </p>
    </form>
    <form class="grid gap-3 mt-5" @submit.prevent="savePage">
      <label>{{ w('letters.page') }} <textarea v-model="page" class="field" rows="3" maxlength="1000" /></label
      ><button class="act act-quiet justify-self-start">{{ w('save') }}</button>
    </form>
  </section>
</template>
