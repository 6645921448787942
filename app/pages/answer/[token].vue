<script setup lang="ts">
import { DateTime } from 'luxon'
import type { Colour, Finish } from '#core/materials'
import type { RouteSlug } from '#core/piece'
definePageMeta({ layout: 'plain' })
const route = useRoute()
const token = String(route.params.token)
const page = ref<AnswerOf<'GET /api/answer/:token'> | null>(null)
const error = ref('')
const name = ref('')
const says = ref('')
const question = ref('')
const busy = ref(false)
async function load() {
  try {
    page.value = await call('GET /api/answer/:token', { token })
  } catch (e) {
    error.value = problem(e).message
  }
}
onMounted(load)
async function answer(kind: 'yes' | 'no' | 'question' | 'replace' | 'match' | 'leave') {
  busy.value = true
  error.value = ''
  try {
    await sendOnce('POST /api/answer/:token', {
      token,
      body: {
        kind,
        name: name.value,
        says: kind === 'question' ? question.value : says.value,
      },
    })
    if (kind === 'question') question.value = ''
    await load()
  } catch (e) {
    error.value = problem(e).message
  }
  busy.value = false
}
const money = (minor: number) =>
  new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency: plan.value?.currency ?? 'EUR',
    maximumFractionDigits: 0,
    currencyDisplay: 'code',
  }).format(minor / 100)
const date = (iso: string) => DateTime.fromISO(iso).setLocale('en-GB').toFormat('d LLLL yyyy')
const shown = computed(() => page.value?.shown)
/** Grounds that were two once, as clients were shown them. */
const FORMER = { 'scuff-and-recoat': 'Scuff and recoat', 'scuff-and-gel': 'Scuff and gel stain' } as const
const routeName = (route: RouteSlug | keyof typeof FORMER) =>
  route === 'scuff-and-recoat' || route === 'scuff-and-gel' ? FORMER[route] : w(`route.${route}`)
/** Questions asked before there were layers hold slugs; they are told in words here. */
interface Told {
  work?: string
  surface?: readonly string[]
  route?: RouteSlug | keyof typeof FORMER
  finish?: Finish
  colour?: Colour
}
const work = ({ work: done, surface, route, finish, colour }: Told) =>
  done === undefined
    ? {
        work: route ? routeName(route) : '',
        surface: [
          ...(finish ? [w(`finish.${finish}`)] : []),
          ...(colour && colour !== 'none' ? [w(`colourKind.${colour}`)] : []),
        ],
      }
    : { work: done, surface: surface ?? [] }
const plan = computed(() => (page.value?.shown.about === 'plan' ? page.value.shown : null))
const item = computed(() => (page.value?.shown.about === 'item' ? page.value.shown : null))
const colour = computed(() => (page.value?.shown.about === 'colour' ? page.value.shown : null))
</script>

<template>
  <article v-if="page && shown" class="text-lg">
    <p class="caption">{{ shown.shop }}</p>
    <h1>{{ shown.piece }}</h1>
    <p class="mt-2">{{ w('letter.to', { name: shown.client }) }}</p>
    <p v-if="shown.words" class="mt-2 whitespace-pre-line" data-test="words">{{ shown.words }}</p>
    <template v-if="plan">
      <div class="row mt-5">
        <!-- eslint-disable-next-line vue/no-v-html -- the stored picture, drawn by this server -->
        <div data-test="picture" v-html="page.picture" />
        <p class="caption">{{ w('letter.section') }}</p>
      </div>
      <dl class="row grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        <dt>{{ w('letter.work') }}</dt>
        <dd class="font-bold">{{ work(plan).work }}</dd>
        <dt>{{ w('letter.finish') }}</dt>
        <dd class="font-bold">
          {{ [...work(plan).surface, w(`sheen.${plan.sheen}`)].join(', ') }}
        </dd>
        <template v-for="way in plan.ways ?? []" :key="way.faces"
          ><dt>{{ way.faces }}</dt>
          <dd class="font-bold" data-test="way">
            {{ [work(way).work, ...work(way).surface].join(', ') }}
          </dd></template
        >
        <dt>{{ w('letter.price') }}</dt>
        <dd class="font-bold clock" data-test="price">
          {{ money(plan.likely_minor)
          }}<span v-if="plan.worst_minor > plan.likely_minor" class="font-normal"
            >, {{ w('letter.atWorst', { sum: money(plan.worst_minor) }) }}</span
          >
        </dd>
        <dt>{{ w('letter.ready') }}</dt>
        <dd class="font-bold clock">
          {{ w('letter.ifNow', { day: date(plan.readyLikely) })
          }}<span class="font-normal"
            >,
            {{ w('letter.latest', { day: date(plan.readySafe), by: date(plan.answerBy ?? plan.readyLikely) }) }}</span
          >
        </dd>
      </dl>
      <p v-if="plan.gate" class="verdict">
        {{ w(plan.ways ? 'letter.gateFaces' : 'letter.gate', { fails: plan.gate, sum: money(plan.worst_minor) }) }}
      </p>
      <FoldOut class="row" :title="w('letter.steps')">
        <ol class="list-decimal pl-6">
          <li v-for="s in plan.steps" :key="s">{{ s }}</li>
        </ol>
      </FoldOut>
    </template>
    <div v-else-if="item" class="row mt-5">
      <h2>{{ w('letter.hardware') }}: {{ item.item }}</h2>
      <p class="mt-1" data-test="item-question">{{ item.question }}</p>
      <!-- eslint-disable-next-line vue/no-v-html -- the stored drawing of the holes, drawn by this server -->
      <div v-if="page.picture" data-test="picture" class="mt-3" v-html="page.picture" />
    </div>
    <div v-else-if="colour" class="row mt-5">
      <h2>{{ colour.question }}</h2>
      <!-- eslint-disable-next-line vue/no-v-html -- the stored swatches, drawn by this server -->
      <div v-if="page.picture" data-test="picture" class="mt-3" v-html="page.picture" />
      <p class="caption mt-2">{{ w('letter.colourGuide') }}</p>
      <p v-if="colour.under" class="mt-2">
        {{ w('letter.difference') }}
        {{ colour.under.map(u => `${w(`colour.lights.${u.light}`)}: ${w(grade(u.de))}`).join(' · ') }}
      </p>
    </div>
    <p v-for="word in page.words" :key="word.at" class="row">
      <strong>{{ word.side === 'client' ? w('letter.you') : shown.shop }}:</strong> {{ word.says }}
    </p>
    <p v-if="error" class="verdict verdict-stop" role="alert">{{ error }}</p>
    <template v-if="page.state === 'open'">
      <form class="row grid gap-4" @submit.prevent>
        <TextField v-model="name" :label="w('letter.name')" />
        <label>{{ w('letter.remark') }} <input v-model="says" class="field" maxlength="1000" /></label>
        <div v-if="item" class="grid sm:grid-cols-3 gap-3">
          <button
            v-for="c in ['replace', 'match', 'leave'] as const"
            :key="c"
            class="act"
            :disabled="busy"
            @click="answer(c)"
          >
            {{ w(`letter.choose.${c}`) }}
          </button>
        </div>
        <div v-else class="grid sm:grid-cols-2 gap-3">
          <button class="act" :disabled="busy" @click="answer('yes')">
            {{ w(colour ? 'letter.yesColour' : 'letter.yes') }}</button><button
            class="act act-stop"
            :disabled="busy"
            @click="answer('no')"
          >
            {{ w('letter.no') }}
          </button>
        </div>
      </form>
      <form class="row grid gap-3" @submit.prevent="answer('question')">
        <label>{{ w('letter.question') }} <textarea v-model="question" class="field" rows="3" maxlength="1000" /></label
        ><button class="act act-quiet justify-self-start" :disabled="busy">{{ w('letter.ask') }}</button>
      </form>
    </template>
    <p v-else class="row text-xl font-bold" data-test="state">
      {{ w(`letter.state.${page.state}`, { name: page.answeredName ?? '' }) }}
    </p>
    <p class="caption break-all">{{ w('letter.digest') }} {{ page.digest }}</p>
  </article>
  <p v-else-if="error" class="verdict verdict-stop mt-10 text-lg">{{ error }}</p>
  <p v-else>{{ w('loading') }}</p>
</template>
