<script setup lang="ts">
import { CONDITIONERS, type Picks } from '#core/build'
import type { House } from '#core/house'
import { BLEACHES, COLOURS, FILLS, FINISHES } from '#core/materials'
import { LAYS, type RouteSlug } from '#core/piece'

const { page, load: reload } = inject(PIECE)!
const session = useSession()
const id = computed(() => page.value!.piece.id)
type Pick = Required<Picks>
const usual = (): Pick => ({
  finish: 'waterborne-polyurethane',
  colour: page.value!.piece.tone === 'darker' ? 'gel-stain' : 'none',
  conditioner: 'auto',
  fill: 'none',
  bleach: 'none',
  film_um: null,
})
const pick = ref(usual())
/** Something was picked here; until then a piece that has layers is judged with those. */
const picked = ref(page.value!.route === null)
const overrides = ref<Partial<House>>(page.value?.piece.house ?? {})
/** Faces that are judged alone; null: the piece. */
const some = ref<number[] | null>(null)
/** As an address carries it. */
const asked = computed(() => {
  const { film_um, ...rest } = pick.value
  return {
    ...(picked.value ? { ...rest, film_um: film_um || undefined } : {}),
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
  (topic, piece) => piece === id.value,
  () => ({ id: id.value, query: asked.value }),
)
// the house's own finish is offered where none was chosen; else what the layers come nearest to
const untouched = ref(page.value!.route === null)
watch(routes, r => {
  if (!r) return
  if (untouched.value) {
    untouched.value = false
    pick.value.finish = r.finishDefault
  } else if (!picked.value) pick.value = { ...usual(), ...r.picks } as Pick
})
function take(change: Partial<Pick>) {
  picked.value = true
  pick.value = { ...pick.value, ...change }
}
function look(faces: readonly number[] | null) {
  some.value = faces ? [...faces] : null
  picked.value = false
}
const busy = ref(false)
async function choose(route: RouteSlug) {
  busy.value = true
  const done = await send('PUT /api/pieces/:id/choice', {
    id: id.value,
    body: {
      ...(picked.value ? { ...pick.value, film_um: pick.value.film_um || null } : {}),
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
  () => session.may('plan') && ['active', 'enquiry'].includes(page.value!.piece.state) && !routes.value!.started,
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
const ground = computed(
  () =>
    [routes.value?.chosen, routes.value?.advised].find((r): r is RouteSlug => LAYS.includes(r as RouteSlug)) ??
    'strip-chemical',
)
</script>

<template>
  <div v-if="routes">
    <RouteWays
      v-if="routes.faces.length > 1 && routes.main"
      :routes="routes"
      :some="some"
      :can="decides"
      @look="look"
      @one-way="oneWay"
    />
    <div class="flex flex-wrap gap-4">
      <ChoiceField
        :model-value="pick.finish"
        class="w-64"
        :label="w('route.finish')"
        :options="optionsOf(FINISHES, f => w(`finish.${f}`))"
        @update:model-value="take({ finish: $event })"
      />
      <ChoiceField
        :model-value="pick.colour"
        class="w-44"
        :label="w('route.colour')"
        :options="optionsOf(COLOURS, c => w(`colourKind.${c}`))"
        @update:model-value="take({ colour: $event })"
      />
      <label class="w-44"
        >{{ w('route.filmWanted') }}
        <input
          :value="pick.film_um"
          type="number"
          min="5"
          max="500"
          class="field"
          :placeholder="w('route.filmUsual')"
          @change="take({ film_um: Number(($event.target as HTMLInputElement).value) || null })"
      /></label>
      <ChoiceField
        v-if="pick.colour === 'pigment-stain'"
        :model-value="pick.conditioner"
        class="w-52"
        :label="w('route.conditioner')"
        :options="optionsOf(CONDITIONERS, c => w(`conditioner.${c}`))"
        @update:model-value="take({ conditioner: $event })"
      />
      <ChoiceField
        :model-value="pick.fill"
        class="w-44"
        :label="w('route.fill')"
        :options="optionsOf(FILLS, f => w(`fill.${f}`))"
        @update:model-value="take({ fill: $event })"
      />
      <ChoiceField
        :model-value="pick.bleach"
        class="w-44"
        :label="w('route.bleach')"
        :options="optionsOf(BLEACHES, b => w(`bleach.${b}`))"
        @update:model-value="take({ bleach: $event })"
      />
    </div>
    <p v-if="picked && routes.main" class="text-ochre mt-3" data-test="anew">{{ w('route.anew') }}</p>
    <p v-if="routes.advised" class="mt-3">
      <a class="underline py-2 text-verdigris font-semibold" :href="`#${routes.advised}`" data-test="advised">{{
        w('route.advisedIs', { route: w(`route.${routes.advised}`) })
      }}</a>
    </p>
    <FoldOut class="row mt-4" :title="w('house.title')">
      <p class="caption">{{ w('house.why', { route: w(`route.${ground}`) }) }}</p>
      <HouseMethods
        :id="id"
        :pick="pick"
        :route="ground"
        :overrides="overrides"
        :faces="some"
        :can="session.may('plan') && !routes.started"
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
        @pick="take({ finish: $event })"
      />
    </FoldOut>
    <RouteComparison v-if="compared" :verdicts="compared" />
    <div class="mt-5">
      <RouteLine
        v-for="v in routes.verdicts"
        :key="v.route"
        :verdict="v"
        :routes="routes"
        :paired="pair.includes(v.route)"
        :can="decides"
        :busy="busy"
        :take="w(some ? 'route.takeFor' : 'route.take')"
        @compare="compare(v.route)"
        @choose="choose(v.route)"
      />
    </div>
    <FoldOut class="row" :title="w('like.title')"><LikePieces :id="id" /></FoldOut>
  </div>
  <PageState v-else :failed="failed" />
</template>
