<script setup lang="ts">
/** What was chosen, with its sum and its date, before it is said. Works without a script; reading it says nothing. */
definePageMeta({ layout: 'plain' })
const route = useRoute()
const token = String(route.params.token)
const { data: page, error } = await useAsyncData(`confirm ${token}`, () =>
  useRequestFetch()<AnswerOf<'GET /api/answer/:token'>>(`/api/answer/${encodeURIComponent(token)}`),
)
if (error.value) setResponseStatus(useRequestEvent()!, error.value.status ?? 404)
useHead({ title: () => page.value?.piece ?? 'Hantverk', meta: [{ name: 'robots', content: 'noindex, nofollow' }] })
const question = computed(() => page.value?.questions.find(q => String(q.id) === String(route.query.question)) ?? null)
const chosen = computed(() =>
  (question.value?.shown.items ?? []).flatMap(item => {
    const reply = replyRead(route.query[fieldOf(item.no)])
    return reply === null || (typeof reply === 'number' && !item.options[reply]) ? [] : [{ item, reply }]
  }),
)
const { money, day, sumOf } = useLetter(() => question.value?.shown ?? { currency: 'EUR', items: [], sums: [] })
const sum = computed(() => {
  const before = (question.value?.replies ?? []).map(r => [r.no, r.reply] as const)
  const yes = chosen.value.some(c => typeof c.reply === 'number' && c.item.priced)
  return yes ? sumOf([...before, ...chosen.value.map(c => [c.item.no, c.reply] as const)]) : null
})
const saysOf = ({ item, reply }: (typeof chosen.value)[number]) =>
  typeof reply === 'number' ? item.options[reply]!.says : w(`letter.choose.${reply}`)
</script>

<template>
  <article v-if="page && question?.state === 'open' && chosen.length" class="text-lg">
    <p class="caption">{{ page.shop }}</p>
    <h1>{{ page.piece }}</h1>
    <h2 class="mt-4">{{ w('letter.youChose') }}</h2>
    <dl class="row grid gap-3">
      <div v-for="c in chosen" :key="c.item.no" data-test="chosen">
        <dt class="caption">{{ c.item.title }}</dt>
        <dd class="text-xl font-bold">{{ saysOf(c) }}</dd>
      </div>
    </dl>
    <dl v-if="sum" class="row grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
      <dt>{{ w('letter.price') }}</dt>
      <dd class="font-bold clock" data-test="sum">
        {{ money(sum.likely_minor)
        }}<span v-if="sum.worst_minor > sum.likely_minor" class="font-normal"
          >, {{ w('letter.atWorst', { sum: money(sum.worst_minor) }) }}</span
        >
      </dd>
      <template v-if="sum.readyLikely"
        ><dt>{{ w('letter.ready') }}</dt>
        <dd class="font-bold clock">
          {{ w('letter.ifNow', { day: day(sum.readyLikely) })
          }}<span class="font-normal"
            >, {{ w('letter.latest', { day: day(sum.readySafe), by: day(question.shown.answerBy) }) }}</span
          >
        </dd></template
      >
    </dl>
    <form class="row grid gap-4" method="post" :action="`/answer/${token}`">
      <input type="hidden" name="question" :value="question.id" />
      <input type="hidden" name="uuid" :value="useUuid(`say ${question.id}`)" />
      <input v-for="c in chosen" :key="c.item.no" type="hidden" :name="fieldOf(c.item.no)" :value="c.reply" />
      <label
        >{{ w('letter.name') }} <input name="name" class="field" maxlength="120" required autocomplete="name"
      /></label>
      <label>{{ w('letter.remark') }} <input name="says" class="field" maxlength="1000" /></label>
      <button class="act">{{ w('letter.say') }}</button>
    </form>
    <a class="inline-flex items-center min-h-11 underline" :href="`/answer/${token}`">{{ w('letter.back') }}</a>
  </article>
  <article v-else class="text-lg">
    <p class="verdict verdict-stop mt-10">{{ w(page ? 'letter.said.choose' : 'letter.noLink') }}</p>
    <a class="inline-flex items-center min-h-11 underline" :href="`/answer/${token}`">{{ w('letter.back') }}</a>
  </article>
</template>
