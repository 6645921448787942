<script setup lang="ts">
/** What a client's link opens: where the piece is, what is asked, what was said. Works without a script. */
definePageMeta({ layout: 'plain' })
const route = useRoute()
const token = String(route.params.token)
const { data: page, error } = await useAsyncData(`answer ${token}`, () =>
  useRequestFetch()<AnswerOf<'GET /api/answer/:token'>>(`/api/answer/${encodeURIComponent(token)}`),
)
const trouble = computed(() => (error.value ? problem(error.value).message : ''))
useHead({ title: () => page.value?.piece ?? 'Hantverk', meta: [{ name: 'robots', content: 'noindex, nofollow' }] })
if (error.value) setResponseStatus(useRequestEvent()!, error.value.status ?? 404)
const said = computed(() => String(route.query.said ?? ''))
const SAID = ['thanks', 'asked', 'choose', 'name', 'overtaken', 'closed', 'busy', 'slow-down'] as const
const note = computed(() => SAID.find(s => s === said.value) ?? null)
const pictureAt = (address: string) => `/api/answer/${token}/photographs/${address}?size=thumb`
const fullAt = (address: string) => `/api/answer/${token}/photographs/${address}?size=full`
const date = letterDay
</script>

<template>
  <article v-if="page" class="text-lg">
    <p class="caption">{{ page.shop }}</p>
    <h1>{{ page.piece }}</h1>
    <p
      v-if="note"
      class="verdict mt-4"
      :class="note === 'thanks' || note === 'asked' ? '' : 'verdict-stop'"
      role="status"
      data-test="said"
    >
      {{ w(`letter.said.${note}`) }}
    </p>
    <section v-if="page.where" class="row mt-4" data-test="where">
      <p class="text-xl font-bold">{{ page.where.says }}</p>
      <p v-if="page.where.dueOn">{{ w('letter.promised', { day: date(page.where.dueOn) }) }}</p>
      <p v-else-if="page.where.safeOn">{{ w('letter.expected', { day: date(page.where.safeOn) }) }}</p>
    </section>
    <section v-for="q in page.questions" :key="q.id" :data-test="`question-${q.state}`">
      <form v-if="q.state === 'open'" method="get" :action="`/answer/${token}/confirm`">
        <input type="hidden" name="question" :value="q.id" />
        <LetterQuestion
          :shown="q.shown"
          :who="page.who"
          open
          :picture-at="pictureAt"
          :standing="q.standing"
          :replies="q.replies"
        />
        <button class="act mt-4">{{ w('letter.goOn') }}</button>
      </form>
      <LetterQuestion
        v-else
        :shown="q.shown"
        :who="page.who"
        :open="false"
        :picture-at="pictureAt"
        :standing="q.standing"
        :replies="q.replies"
      />
      <p v-if="q.state !== 'open'" class="row text-xl font-bold" data-test="state">
        {{ w(`letter.state.${q.state}`, { name: q.answeredName ?? '' }) }}
      </p>
      <p v-for="word in q.words" :key="word.at" class="row">
        <strong>{{ word.side === 'client' ? w('letter.you') : page.shop }}:</strong> {{ word.says }}
      </p>
      <form v-if="q.state === 'open'" class="row grid gap-3" method="post" :action="`/answer/${token}`">
        <input type="hidden" name="question" :value="q.id" />
        <input type="hidden" name="uuid" :value="useUuid(`ask ${q.id}`)" />
        <label
          >{{ w('letter.question') }} <textarea name="asks" class="field" rows="3" maxlength="1000" required /></label
        ><button class="act act-quiet justify-self-start">{{ w('letter.ask') }}</button>
      </form>
      <LetterSteps :shown="q.shown" />
      <p class="caption break-all">{{ w('letter.digest') }} {{ q.digest }}</p>
    </section>
    <p v-if="page.whole && !page.questions.some(q => q.state === 'open')" class="row">{{ w('letter.nothingAsked') }}</p>
    <p v-for="q in page.quotations" :key="q.id" class="row">
      <a class="underline min-h-11 inline-flex items-center" :href="`/api/answer/${token}/quotations/${q.id}`">{{
        w('letter.quotation')
      }}</a>
    </p>
    <p v-if="page.care" class="row">
      <a class="underline min-h-11 inline-flex items-center" :href="`/api/answer/${token}/care`">{{
        w('letter.care')
      }}</a>
    </p>
    <section v-if="page.photographs.length" class="row mt-6">
      <h2>{{ w('letter.photographs') }}</h2>
      <div class="grid grid-cols-2 sm:grid-cols-3 gap-3">
        <a v-for="p in page.photographs" :key="p.address" :href="fullAt(p.address)"
          ><img :src="pictureAt(p.address)" :alt="p.caption || w('letter.photograph')" class="w-full" /><span
            class="caption"
            >{{ p.caption }}</span
          ></a
        >
      </div>
    </section>
    <p v-if="page.words" class="row mt-6 whitespace-pre-line" data-test="house-words">{{ page.words }}</p>
  </article>
  <p v-else class="verdict verdict-stop mt-10 text-lg">{{ trouble || w('letter.noLink') }}</p>
</template>
