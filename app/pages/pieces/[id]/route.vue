<script setup lang="ts">
import { CONDITIONERS, type RouteSlug } from '#core/build'
import type { House } from '#core/house'
import { BLEACHES, COLOURS, FILLS, FINISHES } from '#core/materials'

const { page, load: reload } = inject(PIECE)!
const session = useSession()
const { hours, money, percent, day } = useFormat()
const id = computed(() => page.value!.piece.id)
type Pick = Required<
  Omit<BodyOf<'PUT /api/pieces/:id/choice'>, 'rowVersion' | 'faces' | 'route' | 'house' | 'film_um'>
> & {
  film_um: number | null
}
const pickOf = (p: Partial<{ [K in keyof Pick]: Pick[K] | null }>): Pick => ({
  finish: p.finish ?? 'waterborne-polyurethane',
  colour: p.colour ?? (page.value!.piece.tone === 'darker' ? 'gel-stain' : 'none'),
  conditioner: p.conditioner ?? 'auto',
  fill: p.fill ?? 'none',
  bleach: p.bleach ?? 'none',
  film_um: p.film_um ?? null,
})
const pick = ref(pickOf(page.value!.piece))
const overrides = ref<Partial<House>>(page.value?.piece.house ?? {})
/** Faces that are judged alone; null: the piece. */
const some = ref<number[] | null>(null)
/** As an address carries it. */
const asked = computed(() => {
  const { film_um, ...rest } = pick.value
  return {
    ...rest,
    film_um: film_um || undefined,
    house: JSON.stringify(overrides.value),
    faces: some.value?.join(','),
  }
})
const {
  data: routes,
  load,
  failed,
} = useLive(
  'GET /api/pieces/:id/routes',
  (topic, piece) => topic === 'all' || piece === id.value,
  () => ({ id: id.value, query: asked.value }),
)
// the house's own finish is offered where none was chosen
const untouched = ref(page.value!.piece.finish === null)
watch(routes, r => {
  if (r && untouched.value) {
    untouched.value = false
    pick.value.finish = r.finishDefault
  }
})
const nameOf = (faces: readonly number[]) =>
  routes
    .value!.faces.filter(f => faces.includes(f.id))
    .map(f => `${f.part}, ${f.name}`)
    .join(' · ')
const choosing = ref<number[] | null>(null)
function look(faces: readonly number[] | null) {
  const own = faces && routes.value!.own.find(w => w.faces.some(f => faces.includes(f)))
  some.value = faces ? [...faces] : null
  choosing.value = null
  pick.value = pickOf(own || page.value!.piece)
}
const busy = ref(false)
async function choose(route: RouteSlug) {
  busy.value = true
  const done = await send('PUT /api/pieces/:id/choice', {
    id: id.value,
    body: {
      ...pick.value,
      film_um: pick.value.film_um || null,
      house: overrides.value,
      route,
      rowVersion: routes.value!.rowVersion,
      ...(some.value ? { faces: some.value } : {}),
    },
  })
  busy.value = false
  if (!done) return load()
  await reload()
  await navigateTo(`/pieces/${id.value}/plan`)
}
async function oneWay() {
  if (!(await send('DELETE /api/pieces/:id/ways', { id: id.value, query: { rowVersion: routes.value!.rowVersion } })))
    return load()
  look(null)
  await Promise.all([reload(), load()])
}
const decides = computed(
  () => session.may('owner', 'lead') && page.value!.piece.state === 'active' && !routes.value!.started,
)
/** Two routes beside each other. */
const pair = ref<RouteSlug[]>([])
const compare = (route: RouteSlug) => {
  pair.value = pair.value.includes(route) ? pair.value.filter(r => r !== route) : [...pair.value.slice(-1), route]
}
const compared = computed(() =>
  pair.value.length === 2 ? pair.value.map(r => routes.value!.verdicts.find(v => v.route === r)!) : null,
)
/** The route that methods and finishes are tried on: one that lays a finish. */
const LAYS: readonly RouteSlug[] = [
  'scuff-and-recoat',
  'scuff-and-gel',
  'level-barrier-recoat',
  'strip-chemical',
  'strip-mechanical',
  'strip-both',
]
const ground = computed(
  () =>
    [routes.value?.chosen, routes.value?.advised].find((r): r is RouteSlug => LAYS.includes(r as RouteSlug)) ??
    'strip-chemical',
)
const mark = { 'possible': '●', 'doubtful': '◐', 'ruled-out': '○' } as const
const colour = { 'possible': 'text-moss', 'doubtful': 'text-ochre', 'ruled-out': 'text-madder' } as const
</script>

<template>
  <div v-if="routes">
    <div v-if="routes.faces.length > 1 && routes.main" class="flex flex-wrap gap-2 mb-4" data-test="ways">
      <button
        class="act act-quiet"
        :class="some ? '' : 'border-verdigris! border-2'"
        :aria-pressed="!some"
        @click="look(null)"
      >
        {{ w(routes.own.length ? 'route.rest' : 'route.wholePiece') }}: {{ w(`route.${routes.main}`) }}
      </button>
      <button
        v-for="way in routes.own"
        :key="way.faces.join()"
        class="act act-quiet"
        :class="some?.join() === way.faces.join() ? 'border-verdigris! border-2' : ''"
        :aria-pressed="some?.join() === way.faces.join()"
        @click="look(way.faces)"
      >
        {{ nameOf(way.faces) }}: {{ w(`route.${way.route}`) }}
      </button>
      <template v-if="decides">
        <button class="act act-quiet" :aria-expanded="choosing !== null" @click="choosing = choosing ? null : []">
          {{ w('route.someFaces') }}
        </button>
        <button v-if="routes.own.length" class="act act-quiet" @click="oneWay">{{ w('route.oneWay') }}</button>
      </template>
      <div v-if="choosing" class="w-full grid gap-2">
        <p>{{ w('route.whichFaces') }}</p>
        <FaceChoice
          v-model="choosing"
          :faces="routes.faces.map(f => ({ id: f.id, name: `${f.part}, ${f.name}` }))"
          :label="w('route.whichFaces')"
        />
        <button
          class="act justify-self-start"
          :disabled="choosing.length === 0 || choosing.length === routes.faces.length"
          @click="look(choosing)"
        >
          {{ w('route.judgeThese') }}
        </button>
      </div>
      <p v-if="some" class="w-full text-ochre font-semibold">{{ w('route.aloneFor', { faces: nameOf(some) }) }}</p>
    </div>
    <div class="flex flex-wrap gap-4">
      <ChoiceField
        v-model="pick.finish"
        :label="w('route.finish')"
        :options="optionsOf(FINISHES, f => w(`finish.${f}`))"
      />
      <ChoiceField
        v-model="pick.colour"
        :label="w('route.colour')"
        :options="optionsOf(COLOURS, c => w(`colourKind.${c}`))"
      />
      <label class="w-44"
        >{{ w('route.filmWanted') }}
        <input
          v-model.lazy.number="pick.film_um"
          type="number"
          min="5"
          max="500"
          class="field"
          :placeholder="w('route.filmUsual')"
      /></label>
      <ChoiceField
        v-if="pick.colour === 'pigment-stain'"
        v-model="pick.conditioner"
        :label="w('route.conditioner')"
        :options="optionsOf(CONDITIONERS, c => w(`conditioner.${c}`))"
      />
      <ChoiceField v-model="pick.fill" :label="w('route.fill')" :options="optionsOf(FILLS, f => w(`fill.${f}`))" />
      <ChoiceField
        v-model="pick.bleach"
        :label="w('route.bleach')"
        :options="optionsOf(BLEACHES, b => w(`bleach.${b}`))"
      />
    </div>
    <FoldOut class="row mt-4" :title="w('house.title')">
      <p class="caption">{{ w('house.why', { route: w(`route.${ground}`) }) }}</p>
      <HouseMethods
        :id="id"
        :pick="pick"
        :route="ground"
        :overrides="overrides"
        :faces="some"
        :can="session.may('owner', 'lead') && !routes.started"
        @change="overrides = $event"
      />
    </FoldOut>
    <FoldOut class="row" :title="w('finishes.title')">
      <p class="caption">{{ w('finishes.on', { route: w(`route.${ground}`) }) }}</p>
      <FinishTable
        :id="id"
        :pick="pick"
        :route="ground"
        :overrides="overrides"
        :faces="some"
        @pick="pick.finish = $event"
      />
    </FoldOut>
    <table v-if="compared" class="w-full table-fixed text-left mt-4 bg-sheet" data-test="compared">
      <thead>
        <tr>
          <th class="p-2 w-48" />
          <th v-for="v in compared" :key="v.route" class="p-2 text-lg">{{ w(`route.${v.route}`) }}</th>
        </tr>
      </thead>
      <tbody class="[&_td]:p-2 [&_td]:align-top [&_tr]:border-t [&_tr]:border-line">
        <tr>
          <td class="caption">{{ w('route.standing') }}</td>
          <td v-for="v in compared" :key="v.route">
            <strong :class="colour[v.standing]">{{ mark[v.standing] }} {{ w(`standing.${v.standing}`) }}</strong>
          </td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.hands') }}</td>
          <td v-for="v in compared" :key="v.route" class="clock">
            {{ hours(v.likely.attended_min) }}, {{ w('route.expected') }} {{ hours(v.expected.attended_min) }},
            {{ w('worst') }} {{ hours(v.worst.attended_min) }}
          </td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.ready') }}</td>
          <td v-for="v in compared" :key="v.route" class="clock">
            {{ day(v.readyLikely_ms) }}, {{ w('worst') }} {{ day(v.readyWorst_ms) }}
          </td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.price') }}</td>
          <td v-for="v in compared" :key="v.route" class="clock font-bold">
            {{ money(v.likely.total_minor) }}, {{ w('route.expected') }} {{ money(v.expected.total_minor) }},
            {{ w('worst') }} {{ money(v.worst.total_minor) }}
          </td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.gates') }}</td>
          <td v-for="v in compared" :key="v.route">
            <span v-for="g in v.gates" :key="g.look" class="block">{{ percent(g.chance) }}: {{ g.fails }}</span
            ><template v-if="!v.gates.length">–</template>
          </td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.back') }}</td>
          <td v-for="v in compared" :key="v.route">{{ w(`route.reversible.${v.reversible}`) }}</td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.patina') }}</td>
          <td v-for="v in compared" :key="v.route">{{ w(`route.patinas.${v.patina}`) }}</td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.film') }}</td>
          <td v-for="v in compared" :key="v.route" class="clock">{{ Math.round(v.film_um) }} µm</td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.cautions') }}</td>
          <td v-for="v in compared" :key="v.route">{{ v.hazards.map(h => w(`caution.${h}`)).join(', ') || '–' }}</td>
        </tr>
        <tr>
          <td class="caption">{{ w('route.why') }}</td>
          <td v-for="v in compared" :key="v.route">
            <span v-for="r in v.reasons" :key="r.says" class="block">{{ r.says }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <div class="mt-5">
      <article
        v-for="v in routes.verdicts"
        :key="v.route"
        class="row grid lg:grid-cols-[15rem_1fr_25rem] gap-x-8 gap-y-3"
        data-test="route"
        :data-route="v.route"
        :data-standing="v.standing"
      >
        <div>
          <h2>{{ w(`route.${v.route}`) }}</h2>
          <strong :class="colour[v.standing]">{{ mark[v.standing] }} {{ w(`standing.${v.standing}`) }}</strong>
          <p v-if="routes.chosen === v.route" class="font-semibold">{{ w('route.chosen') }}</p>
          <p v-else-if="routes.beside === v.route" class="caption">{{ w('route.beside') }}</p>
          <p v-if="routes.advised === v.route" class="text-verdigris font-semibold">{{ w('route.advised') }}</p>
          <button
            v-if="v.standing !== 'ruled-out'"
            class="act act-quiet mt-2 flex!"
            :aria-pressed="pair.includes(v.route)"
            :class="pair.includes(v.route) ? 'border-verdigris!' : ''"
            @click="compare(v.route)"
          >
            {{ w('route.compare') }}
          </button>
        </div>
        <ul class="grid gap-1 content-start">
          <li v-for="r in v.reasons" :key="r.says" :class="r.standing === 'ruled-out' ? 'text-madder' : ''">
            <span aria-hidden="true" :class="colour[r.standing]">{{ mark[r.standing] }}</span> {{ r.says }}
          </li>
          <li v-if="v.standing !== 'ruled-out' && v.chanceReasons.length">
            <FoldOut
              :title="w(v.chanceOf === 'fallback' ? 'route.chance' : 'route.chanceAgain', { p: percent(v.chance) })"
            >
              <span v-for="c in v.chanceReasons" :key="c.why" class="caption block"
                >{{ percent(c.p) }}: {{ c.why }}</span
              ><span class="caption block">{{ w('route.chanceSum') }}</span
              ><span v-if="v.record" class="caption block" data-test="record">{{
                w('route.record', {
                  fails: v.record.fails,
                  tries: v.record.tries,
                  expected: v.record.expected.toFixed(1),
                })
              }}</span>
            </FoldOut>
          </li>
        </ul>
        <div v-if="v.standing !== 'ruled-out'" class="clock">
          <dl class="grid grid-cols-[auto_1fr_1fr_1fr] items-baseline gap-x-3 gap-y-1">
            <dt />
            <dd class="caption text-right">{{ w('route.allWell') }}</dd>
            <dd class="caption text-right">{{ w('route.expected') }}</dd>
            <dd class="caption text-right">{{ w('worst') }}</dd>
            <dt class="caption">{{ w('route.hands') }}</dt>
            <dd class="text-right">{{ hours(v.likely.attended_min) }}</dd>
            <dd class="text-right">{{ hours(v.expected.attended_min) }}</dd>
            <dd class="text-right">{{ hours(v.worst.attended_min) }}</dd>
            <dt class="caption">{{ w('route.ready') }}</dt>
            <dd class="text-right">{{ day(v.readyLikely_ms) }}</dd>
            <dd class="text-right">{{ day(v.expected.ready_ms) }}</dd>
            <dd class="text-right">{{ day(v.readyWorst_ms) }}</dd>
            <dt class="caption">{{ w('route.price') }}</dt>
            <dd class="text-right">{{ money(v.likely.total_minor) }}</dd>
            <dd class="text-right font-bold">{{ money(v.expected.total_minor) }}</dd>
            <dd class="text-right">{{ money(v.worst.total_minor) }}</dd>
          </dl>
          <button
            v-if="decides"
            class="act mt-3 w-full"
            :class="routes.advised === v.route ? '' : 'act-quiet'"
            :disabled="busy"
            @click="choose(v.route)"
          >
            {{ w(some ? 'route.takeFor' : 'route.take') }}
          </button>
        </div>
      </article>
    </div>
  </div>
  <PageState v-else :failed="failed" />
</template>
