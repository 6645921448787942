<script setup lang="ts">
import { HAZARDS } from '#core/safety'

const route = useRoute()
const session = useSession()
const { dayTime, hours } = useFormat()
const id = computed(() => Number(route.params.id))
const method = ref<Record<string, string>>({})
const spot = ref('')
const reading = ref(false)
const more = ref('')
async function settle(kind: string, answer: 'yes' | 'no', load: () => Promise<void>) {
  if (
    await send('POST /api/pieces/:id/evidence', {
      id: id.value,
      body: { kind, answer, method: method.value[kind] ?? '' },
    })
  ) {
    method.value[kind] = ''
    more.value = ''
    await load()
  }
}
async function swab(load: () => Promise<void>) {
  reading.value = true
  const got = await send('POST /api/pieces/:id/swab', {
    id: id.value,
    body: {
      spot: spot.value,
    },
  })
  reading.value = false
  if (got) await load()
}
const colour = { open: 'text-madder', confirmed: 'text-madder', cleared: 'text-moss' } as const
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)] gap-x-10 gap-y-8">
      <section>
        <p v-if="!exam.hazards.length">{{ w('exam.noHazard') }}</p>
        <article
          v-for="h in exam.hazards"
          :key="h.slug"
          class="row"
          data-test="hazard"
          :data-slug="h.slug"
          :data-standing="h.standing"
        >
          <h2>
            {{ h.name }} <span :class="colour[h.standing]">{{ w(`exam.standing.${h.standing}`) }}</span>
          </h2>
          <p>{{ h.why }} {{ h.says }}</p>
          <p v-if="h.standing !== 'cleared'" class="verdict mt-2" :class="h.severity === 'note' ? '' : 'verdict-stop'">
            <strong>{{ w('exam.forbids') }}</strong>
            {{ h.forbids.map(b => w(`ban.${b}`)).join(', ') }}.<br /><strong>{{ w('exam.asks') }}</strong> {{ h.asks
            }}<br /><strong>{{ w('exam.turnTo') }}</strong> {{ h.turnTo }}
          </p>
          <p v-for="e in h.evidence" :key="e.at" class="mt-1">
            <strong>{{ w(`lead.${e.answer}`) }}</strong>: {{ e.method }}
            <span class="caption">{{ e.by_name }}, {{ dayTime(e.at) }}</span>
          </p>
          <form
            v-if="h.slug === 'lead' && h.standing === 'open' && can"
            class="flex flex-wrap gap-2 items-end mt-2"
            @submit.prevent="swab(load)"
          >
            <label class="grow"
              >{{ w('exam.swabSpot') }} <input v-model="spot" class="field" required maxlength="120" /></label
            ><button class="act" :disabled="reading">{{ w('exam.readSwab') }}</button>
          </form>
          <form v-if="session.may('plan') && can" class="flex flex-wrap gap-2 items-end mt-2" @submit.prevent>
            <label class="grow"
              >{{ w('exam.evidence') }} ({{ h.settledBy }})
              <input v-model="method[h.slug]" class="field" maxlength="200" /></label
            ><button class="act act-quiet" @click="settle(h.slug, 'no', load)">{{ w('exam.saysNo') }}</button
            ><button class="act act-stop" @click="settle(h.slug, 'yes', load)">{{ w('exam.saysYes') }}</button>
          </form>
        </article>
        <FoldOut v-if="session.may('plan') && can" class="row" :title="w('exam.otherHazard')">
          <form class="flex flex-wrap gap-2 items-end" @submit.prevent>
            <ChoiceField
              v-model="more"
              :label="w('exam.hazard')"
              :options="namedOptions(HAZARDS.filter(x => !exam.hazards.some(y => y.slug === x.slug)))"
            /><label class="grow"
              >{{ w('exam.evidence') }} <input v-model="method[more]" class="field" maxlength="200" /></label
            ><button class="act act-stop" :disabled="!more" @click="settle(more, 'yes', load)">
              {{ w('exam.saysYes') }}
            </button>
          </form>
        </FoldOut>
      </section>
      <section v-if="exam.banEffect" data-test="ban-effect">
        <h2>{{ w('exam.banChanged') }}</h2>
        <p class="caption">{{ exam.banEffect.assumed ? w('exam.banAssumed') : w('exam.banPlan') }}</p>
        <div v-for="c in exam.banEffect.changes" :key="c.key" class="row">
          <p v-if="c.before" class="line-through text-soft">{{ c.before.title }}, {{ c.before.attended_min }} min</p>
          <p v-if="c.after">{{ c.after.title }}, {{ c.after.attended_min }} min</p>
        </div>
        <p class="row">
          <strong>{{
            exam.banEffect.minutes >= 0
              ? w('exam.longer', { t: hours(exam.banEffect.minutes) })
              : w('exam.shorter', { t: hours(-exam.banEffect.minutes) })
          }}</strong>
        </p>
      </section>
    </div>
  </ExaminePage>
</template>
