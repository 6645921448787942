<script setup lang="ts">
import { BLEACHES, COLOURS, FILLS, FINISHES } from '#core/layers/materials'
import type { House, RouteSlug } from '#core/plan'

const { page, load: reload } = inject(PIECE)!
const session = useSession()
const { hours, money, percent, day } = useFormat()
const id = computed(() => page.value!.piece.id)
const pick = ref({ finish: page.value?.piece.finish ?? 'waterborne-polyurethane', colour: page.value?.piece.colour ?? (page.value?.piece.tone === 'darker' ? 'gel-stain' : 'none'), conditioner: page.value?.piece.conditioner ?? 'auto', fill: page.value?.piece.fill ?? 'none', bleach: page.value?.piece.bleach ?? 'none' })
const overrides = ref<Partial<House>>(page.value?.piece.house ?? {})
const asked = computed(() => new URLSearchParams({ ...pick.value, house: JSON.stringify(overrides.value) }))
const { data: routes, load } = useLive<RoutesPage>(() => `/api/pieces/${id.value}/routes?${asked.value}`, (topic, piece) => topic === 'all' || piece === id.value)
const busy = ref(false)
async function choose(route: string) {
  busy.value = true
  const done = await send('PUT', `/api/pieces/${id.value}/choice`, { ...pick.value, house: overrides.value, route, rowVersion: routes.value!.rowVersion })
  busy.value = false
  if (!done) return load()
  await reload()
  await navigateTo(`/pieces/${id.value}/plan`)
}
/** Two routes beside each other. */
const pair = ref<string[]>([])
const compare = (route: string) => { pair.value = pair.value.includes(route) ? pair.value.filter(r => r !== route) : [...pair.value.slice(-1), route] }
const compared = computed(() => pair.value.length === 2 ? pair.value.map(r => routes.value!.verdicts.find(v => v.route === r)!) : null)
/** The route that methods and finishes are tried on: one that lays a finish. */
const LAYS: readonly RouteSlug[] = ['scuff-and-recoat', 'scuff-and-gel', 'level-barrier-recoat', 'strip-chemical', 'strip-mechanical', 'strip-both']
const ground = computed(() => [routes.value?.chosen, routes.value?.advised].find((r): r is RouteSlug => LAYS.includes(r as RouteSlug)) ?? 'strip-chemical')
const methods = ref(false)
const finishes = ref(false)
const mark = { 'possible': '●', 'doubtful': '◐', 'ruled-out': '○' } as const
const colour = { 'possible': 'text-moss', 'doubtful': 'text-ochre', 'ruled-out': 'text-madder' } as const
</script>

<template>
  <div v-if="routes">
    <div class="flex flex-wrap gap-4">
      <label>{{ $t('route.finish') }} <select v-model="pick.finish" class="field"><option v-for="f in FINISHES" :key="f" :value="f">{{ $t(`finish.${f}`) }}</option></select></label>
      <label>{{ $t('route.colour') }} <select v-model="pick.colour" class="field"><option v-for="c in COLOURS" :key="c" :value="c">{{ $t(`colour.${c}`) }}</option></select></label>
      <label v-if="pick.colour === 'pigment-stain'">{{ $t('route.conditioner') }} <select v-model="pick.conditioner" class="field"><option v-for="c in ['auto', 'none', 'oil-conditioner', 'water-conditioner']" :key="c" :value="c">{{ $t(`conditioner.${c}`) }}</option></select></label>
      <label>{{ $t('route.fill') }} <select v-model="pick.fill" class="field"><option v-for="f in FILLS" :key="f" :value="f">{{ $t(`fill.${f}`) }}</option></select></label>
      <label>{{ $t('route.bleach') }} <select v-model="pick.bleach" class="field"><option v-for="b in BLEACHES" :key="b" :value="b">{{ $t(`bleach.${b}`) }}</option></select></label>
    </div>
    <details class="row mt-4" @toggle="methods = ($event.target as HTMLDetailsElement).open">
      <summary class="min-h-11 py-2 underline cursor-pointer">{{ $t('house.title') }}</summary>
      <p class="caption">{{ $t('house.why', { route: $t(`route.${ground}`) }) }}</p>
      <HouseMethods v-if="methods" :id="id" :pick="pick" :route="ground" :overrides="overrides" :can="session.may('owner', 'lead') && !routes.started" @change="overrides = $event" />
    </details>
    <details class="row" @toggle="finishes = ($event.target as HTMLDetailsElement).open">
      <summary class="min-h-11 py-2 underline cursor-pointer">{{ $t('finishes.title') }}</summary>
      <p class="caption">{{ $t('finishes.on', { route: $t(`route.${ground}`) }) }}</p>
      <FinishTable v-if="finishes" :id="id" :pick="pick" :route="ground" :overrides="overrides" @pick="pick.finish = $event" />
    </details>
    <table v-if="compared" class="w-full text-left mt-4 bg-sheet" data-test="compared">
      <thead><tr><th class="p-2 w-48" /><th v-for="v in compared" :key="v.route" class="p-2 text-lg">{{ $t(`route.${v.route}`) }}</th></tr></thead>
      <tbody class="[&_td]:p-2 [&_td]:align-top [&_tr]:border-t [&_tr]:border-line">
        <tr><td class="caption">{{ $t('route.standing') }}</td><td v-for="v in compared" :key="v.route"><strong :class="colour[v.standing]">{{ mark[v.standing] }} {{ $t(`standing.${v.standing}`) }}</strong></td></tr>
        <tr><td class="caption">{{ $t('route.hands') }}</td><td v-for="v in compared" :key="v.route" class="clock">{{ hours(v.likely.attended_min) }}, {{ $t('worst') }} {{ hours(v.worst.attended_min) }}</td></tr>
        <tr><td class="caption">{{ $t('route.ready') }}</td><td v-for="v in compared" :key="v.route" class="clock">{{ day(v.readyLikely_ms) }}, {{ $t('worst') }} {{ day(v.readyWorst_ms) }}</td></tr>
        <tr><td class="caption">{{ $t('route.price') }}</td><td v-for="v in compared" :key="v.route" class="clock font-bold">{{ money(v.likely.total_minor) }}, {{ $t('worst') }} {{ money(v.worst.total_minor) }}</td></tr>
        <tr><td class="caption">{{ $t('route.gates') }}</td><td v-for="v in compared" :key="v.route"><span v-for="g in v.gates" :key="g.look" class="block">{{ percent(g.chance) }}: {{ g.fails }}</span><template v-if="!v.gates.length">–</template></td></tr>
        <tr><td class="caption">{{ $t('route.back') }}</td><td v-for="v in compared" :key="v.route">{{ $t(`route.reversible.${v.reversible}`) }}</td></tr>
        <tr><td class="caption">{{ $t('route.patina') }}</td><td v-for="v in compared" :key="v.route">{{ $t(`route.patinas.${v.patina}`) }}</td></tr>
        <tr><td class="caption">{{ $t('route.film') }}</td><td v-for="v in compared" :key="v.route" class="clock">{{ Math.round(v.film_um) }} µm</td></tr>
        <tr><td class="caption">{{ $t('route.cautions') }}</td><td v-for="v in compared" :key="v.route">{{ v.hazards.map(h => $t(`caution.${h}`)).join(', ') || '–' }}</td></tr>
        <tr><td class="caption">{{ $t('route.why') }}</td><td v-for="v in compared" :key="v.route"><span v-for="r in v.reasons" :key="r.says" class="block">{{ r.says }}</span></td></tr>
      </tbody>
    </table>
    <div class="mt-5">
      <article v-for="v in routes.verdicts" :key="v.route" class="row grid lg:grid-cols-[17rem_1fr_19rem] gap-x-8 gap-y-3" data-test="route" :data-route="v.route" :data-standing="v.standing">
        <div>
          <h2>{{ $t(`route.${v.route}`) }}</h2>
          <strong :class="colour[v.standing]">{{ mark[v.standing] }} {{ $t(`standing.${v.standing}`) }}</strong>
          <p v-if="routes.chosen === v.route" class="font-semibold">{{ $t('route.chosen') }}</p>
          <p v-else-if="routes.beside === v.route" class="caption">{{ $t('route.beside') }}</p>
          <p v-if="routes.advised === v.route" class="text-verdigris font-semibold">{{ $t('route.advised') }}</p>
          <button v-if="v.standing !== 'ruled-out'" class="act act-quiet mt-2 flex!" :aria-pressed="pair.includes(v.route)" :class="pair.includes(v.route) ? 'border-verdigris!' : ''" @click="compare(v.route)">{{ $t('route.compare') }}</button>
        </div>
        <ul class="grid gap-1 content-start">
          <li v-for="r in v.reasons" :key="r.says" :class="r.standing === 'ruled-out' ? 'text-madder' : ''"><span aria-hidden="true" :class="colour[r.standing]">{{ mark[r.standing] }}</span> {{ r.says }}</li>
          <li v-if="v.standing !== 'ruled-out' && v.chanceReasons.length"><details><summary class="underline cursor-pointer min-h-8">{{ $t('route.chance', { p: percent(v.chance) }) }}</summary><span v-for="c in v.chanceReasons" :key="c.why" class="caption block">{{ percent(c.p) }}: {{ c.why }}</span><span class="caption">{{ $t('route.chanceSum') }}</span></details></li>
        </ul>
        <div v-if="v.standing !== 'ruled-out'" class="clock">
          <dl class="grid grid-cols-[auto_1fr_1fr] gap-x-4 gap-y-1">
            <dt /><dd class="caption text-right">{{ $t('likely') }}</dd><dd class="caption text-right">{{ $t('worst') }}</dd>
            <dt class="caption">{{ $t('route.hands') }}</dt><dd class="text-right">{{ hours(v.likely.attended_min) }}</dd><dd class="text-right">{{ hours(v.worst.attended_min) }}</dd>
            <dt class="caption">{{ $t('route.days') }}</dt><dd class="text-right">{{ v.likelyDays }}</dd><dd class="text-right">{{ v.worstDays }}</dd>
            <dt class="caption">{{ $t('route.ready') }}</dt><dd class="text-right">{{ day(v.readyLikely_ms) }}</dd><dd class="text-right">{{ day(v.readyWorst_ms) }}</dd>
            <dt class="caption">{{ $t('route.price') }}</dt><dd class="text-right font-bold">{{ money(v.likely.total_minor) }}</dd><dd class="text-right font-bold">{{ money(v.worst.total_minor) }}</dd>
          </dl>
          <button v-if="session.may('owner', 'lead') && page!.piece.state === 'active' && !routes.started" class="act mt-3 w-full" :class="routes.advised === v.route ? '' : 'act-quiet'" :disabled="busy" @click="choose(v.route)">{{ $t('route.take') }}</button>
        </div>
      </article>
    </div>
  </div>
  <p v-else>{{ $t('loading') }}</p>
</template>
