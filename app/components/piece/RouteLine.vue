<script setup lang="ts">
/** One route judged: how it stands and why, its chance, hands, date and price; it may be compared and taken. */
defineProps<{
  verdict: RoutesPage['verdicts'][number]
  routes: RoutesPage
  paired: boolean
  can: boolean
  busy: boolean
  take: string
}>()
const emit = defineEmits<{ compare: []; choose: [] }>()
const session = useSession()
const { hours, money, percent, day } = useFormat()
</script>

<template>
  <article
    :id="verdict.route"
    class="row grid lg:grid-cols-[15rem_1fr_25rem] gap-x-8 gap-y-3 scroll-mt-4"
    data-test="route"
    :data-route="verdict.route"
    :data-standing="verdict.standing"
  >
    <div>
      <h2>{{ w(`route.${verdict.route}`) }}</h2>
      <strong :class="STANDING_COLOUR[verdict.standing]"
        >{{ STANDING_MARK[verdict.standing] }} {{ w(`standing.${verdict.standing}`) }}</strong
      >
      <p v-if="routes.chosen === verdict.route" class="font-semibold">{{ w('route.chosen') }}</p>
      <p v-else-if="routes.beside === verdict.route" class="caption">{{ w('route.beside') }}</p>
      <p v-if="routes.advised === verdict.route" class="text-verdigris font-semibold">{{ w('route.advised') }}</p>
      <button
        v-if="verdict.standing !== 'ruled-out'"
        class="act act-quiet mt-2 flex!"
        :aria-pressed="paired"
        :class="paired ? 'border-verdigris!' : ''"
        @click="emit('compare')"
      >
        {{ w('route.compare') }}
      </button>
    </div>
    <ul class="grid gap-1 content-start">
      <li v-for="r in verdict.reasons" :key="r.says" :class="r.standing === 'ruled-out' ? 'text-madder' : ''">
        <span aria-hidden="true" :class="STANDING_COLOUR[r.standing]">{{ STANDING_MARK[r.standing] }}</span>
        {{ r.says }}
      </li>
      <li v-if="verdict.standing !== 'ruled-out' && verdict.chanceReasons.length">
        <FoldOut
          :title="
            w(verdict.chanceOf === 'fallback' ? 'route.chance' : 'route.chanceAgain', { p: percent(verdict.chance) })
          "
        >
          <span v-for="c in verdict.chanceReasons" :key="c.why" class="caption block"
            >{{ percent(c.p) }}: {{ c.why }}</span
          ><span class="caption block">{{ w('route.chanceSum') }}</span
          ><span v-if="verdict.record" class="caption block" data-test="record">{{
            w('route.record', {
              fails: verdict.record.fails,
              tries: verdict.record.tries,
              expected: verdict.record.expected.toFixed(1),
            })
          }}</span>
        </FoldOut>
      </li>
    </ul>
    <div v-if="verdict.standing !== 'ruled-out'" class="clock">
      <dl class="grid grid-cols-[auto_1fr_1fr_1fr] items-baseline gap-x-3 gap-y-1">
        <dt />
        <dd class="caption text-right">{{ w('route.allWell') }}</dd>
        <dd class="caption text-right">{{ w('route.expected') }}</dd>
        <dd class="caption text-right">{{ w('worst') }}</dd>
        <dt class="caption">{{ w('route.hands') }}</dt>
        <dd class="text-right">{{ hours(verdict.likely.attended_min) }}</dd>
        <dd class="text-right">{{ hours(verdict.expected.attended_min) }}</dd>
        <dd class="text-right">{{ hours(verdict.worst.attended_min) }}</dd>
        <dt class="caption">{{ w('route.ready') }}</dt>
        <dd class="text-right">{{ day(verdict.readyLikely_ms) }}</dd>
        <dd class="text-right">{{ day(verdict.expected.ready_ms) }}</dd>
        <dd class="text-right">{{ day(verdict.readyWorst_ms) }}</dd>
        <template v-if="session.may('see-prices')">
          <dt class="caption">{{ w('route.price') }}</dt>
          <dd class="text-right">{{ money(verdict.likely.total_minor) }}</dd>
          <dd class="text-right font-bold">{{ money(verdict.expected.total_minor) }}</dd>
          <dd class="text-right">{{ money(verdict.worst.total_minor) }}</dd>
        </template>
      </dl>
      <button
        v-if="can"
        class="act mt-3 w-full"
        :class="routes.advised === verdict.route ? '' : 'act-quiet'"
        :disabled="busy"
        @click="emit('choose')"
      >
        {{ take }}
      </button>
    </div>
  </article>
</template>
