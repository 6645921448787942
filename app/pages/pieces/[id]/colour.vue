<script setup lang="ts">
import { type Light, LIGHTS } from '#core/colour'

const { page: piece, load: reload } = inject(PIECE)!
const id = computed(() => piece.value!.piece.id)
const session = useSession()
const light = useLight()
const { dayTime, degrees } = useFormat()
const {
  data: page,
  load,
  failed,
} = useLive(
  'GET /api/pieces/:id/panel',
  (topic, p) => p === id.value,
  () => ({ id: id.value }),
)
const can = computed(() => session.may('mix') && piece.value!.piece.state === 'active')
const open = ref('')
/** What was just measured belongs to the band that is added next. */
const lastRead = ref(0)
const shown = computed(() => page.value?.lines.find(l => l.key === open.value) ?? null)
const title = (l: PanelLine) => l.title || w('panel.bare')
const measured = (l: PanelLine) => l.bands.findLast(b => b.spectrum)?.spectrum ?? null
const states = computed(() =>
  (page.value?.lines ?? []).map(l => ({
    key: l.key,
    title: title(l),
    now: l.now,
    predicted: l.predicted,
    measured: measured(l),
    why: l.why ?? ('no-recipe' as const),
    approved: l.bands.some(b => b.approved_at),
  })),
)
const now = computed(() => page.value?.lines.find(l => l.now) ?? null)
const approved = computed(
  () =>
    page.value?.lines.flatMap(l => l.bands.filter(b => b.approved_at).map(b => ({ ...b, of: title(l) }))).at(-1) ??
    null,
)
const judged = (underFinish: boolean) =>
  (page.value?.lines ?? []).some(
    l => l.key !== 'bare' && l.underFinish === underFinish && l.bands.some(b => b.spectrum),
  )
const anyBare = computed(() => judged(false) && !judged(true))
const by = ref(piece.value!.piece.client_name)
/** By mail: the client sees the band beside its target under each light. */
async function ask(band: number, rowVersion: number) {
  if (
    !(await send('POST /api/bands/:id/question', {
      id: band,
      body: { rowVersion, words: w('panel.askWords'), light: light.value },
    }))
  )
    return
  useNotes().show(w('panel.asked'))
  await load()
}
async function setRoomLight(value: Light | '') {
  if (
    await send('PATCH /api/pieces/:id', {
      id: id.value,
      body: {
        rowVersion: piece.value!.piece.row_version,
        roomLight: value || null,
      },
    })
  ) {
    await reload()
    await load()
  }
}
async function change(band: number, body: BodyOf<'PATCH /api/bands/:id'>) {
  if (await send('PATCH /api/bands/:id', { id: band, body })) {
    await load()
    await reload()
  }
}
function bandAdded() {
  lastRead.value = 0
  void load()
}
</script>

<template>
  <div v-if="page" class="grid gap-6">
    <div class="grid lg:grid-cols-[1fr_22rem] gap-x-10 gap-y-5">
      <section class="grid gap-4 content-start min-w-0">
        <div class="flex flex-wrap items-center gap-4">
          <h2 class="grow">{{ w('panel.title') }}</h2>
          <LightChoice :lights="page.lights" />
        </div>
        <p v-if="now" class="text-lg" data-test="now">
          <strong>{{ w('panel.now') }}</strong> {{ title(now) }}
        </p>
        <p v-else-if="page.lines.length > 1" class="text-lg">{{ w('panel.notBare') }}</p>
        <PanelStrip v-model="open" :states="states" />
        <p v-if="anyBare" class="verdict">{{ w('panel.bareWarning') }}</p>
        <p v-for="d in page.coatsDiffer" :key="d.id" class="verdict">{{ w('panel.coatsDiffer', d) }}</p>
        <p v-if="page.lightDiffers" class="verdict">{{ w('colour.historyDiffers') }}</p>
        <p v-if="page.shifts" class="verdict">
          {{ w(page.shifts.darker ? 'panel.darkens' : 'panel.pales', { wood: page.shifts.species }) }}
        </p>
        <section v-if="shown" class="grid gap-3" data-test="band-detail">
          <h2>{{ title(shown) }}</h2>
          <p v-if="!shown.underFinish" class="caption">{{ w('panel.noFinishYet') }}</p>
          <div v-for="b in shown.bands" :key="b.id" class="row flex flex-wrap items-center gap-x-5 gap-y-2">
            <span v-if="b.spectrum" class="bg-[#777777] p-1.5" aria-hidden="true"
              ><span class="block w-14 h-10" :style="{ background: swatch(b.spectrum, light) }"
            /></span>
            <img
              v-if="b.photograph"
              :src="`/api/photographs/${b.photograph}?size=thumb`"
              class="h-12"
              :alt="w('panel.photograph')"
            />
            <span class="grow basis-56"
              ><strong>{{ b.lab ? `L*a*b* ${b.lab.map(v => v.toFixed(1)).join(' · ')}` : w('panel.notRead') }}</strong
              ><span class="caption block">{{
                [
                  b.grit ? `${b.scale === 'P' ? 'P' : 'CAMI '}${b.grit}` : null,
                  w(`panel.applicators.${b.applicator}`),
                  w(`colour.wipes.${b.wipe}`),
                  b.dwell_min ? `${b.dwell_min} min` : null,
                  b.temperature_C === null ? null : degrees(b.temperature_C),
                  b.note,
                ]
                  .filter(Boolean)
                  .join(' · ')
              }}</span></span
            >
            <span v-if="b.off !== null">{{ w('panel.off', { de: b.off.toFixed(1) }) }}</span><span
              v-if="b.toTarget !== null"
              >{{ w('panel.toTarget', { de: b.toTarget.toFixed(1) }) }}
              <strong>{{ w(grade(b.toTarget)) }}</strong></span
            >
            <form
              v-if="can && !b.approved_at"
              class="basis-full flex flex-wrap items-end gap-3"
              @submit.prevent="change(b.id, { rowVersion: b.row_version, kind: 'approve', by, light })"
            >
              <TextField v-model="by" :label="w('panel.whoSays')" /><button class="act">
                {{ w('panel.approve') }}
              </button>
              <button
                v-if="shown.underFinish && b.spectrum && session.may('quote')"
                type="button"
                class="act act-quiet"
                @click="ask(b.id, b.row_version)"
              >
                {{ w('panel.ask') }}
              </button>
              <button
                type="button"
                class="underline min-h-11 px-2"
                @click="change(b.id, { rowVersion: b.row_version, kind: 'withdraw' })"
              >
                {{ w('takeBack') }}
              </button>
            </form>
          </div>
          <BandForm v-if="can" :piece-id="id" :page="page" :line="shown" :read="lastRead" @added="bandAdded" />
        </section>
        <p v-else class="caption">{{ w('panel.touch') }}</p>
      </section>
      <aside class="grid gap-4 content-start">
        <SwatchStrip
          v-if="page.target || page.later"
          :colours="[
            { name: w('panel.final'), spectrum: page.lines.at(-1)?.predicted ?? null },
            { name: w('colour.target'), spectrum: page.target?.spectrum ?? null },
            { name: w('panel.inYears', { n: page.later?.years ?? 10 }), spectrum: page.later?.spectrum ?? null },
          ]"
        />
        <p class="caption">{{ w('colour.guide') }}</p>
        <p v-if="approved" class="verdict !border-moss" data-test="approval">
          {{
            w('panel.approvedBy', {
              by: approved.approved_by ?? '',
              at: dayTime(approved.approved_at!),
              light: w(`colour.lights.${approved.judged_light ?? 'd65'}`),
              of: approved.of,
            })
          }}
        </p>
        <p v-for="r in page.recipes" :key="r.id">
          <NuxtLink class="underline" :to="`/colour/recipes?id=${r.id}&piece=${id}`"
            >{{ w('panel.recipe', { id: r.id }) }} {{ r.name }}</NuxtLink
          >, ΔE00 {{ r.worst.toFixed(1) }}
        </p>
        <ChoiceField
          v-if="session.may('quote')"
          :model-value="page.lights.room ?? ''"
          :label="w('panel.roomLight')"
          :options="[{ value: '', label: w('panel.notKnown') }, ...optionsOf(LIGHTS, l => w(`colour.lights.${l}`))]"
          @update:model-value="setRoomLight($event)"
        />
        <NuxtLink v-if="can" :to="`/colour?piece=${id}`" class="act no-underline">{{ w('panel.match') }}</NuxtLink>
        <FoldOut v-if="can" :open="!page.wood || !page.target" :title="w('colour.newReading')">
          <MeasureForm
            :piece-id="id"
            :role="shown ? 'band' : page.wood ? (page.target ? 'band' : 'target') : 'wood'"
            :species="piece!.faces[0]?.species"
            :name="shown ? w('panel.bandOf', { state: title(shown) }) : undefined"
            :clear-coat="shown?.coat ?? null"
            @read="
              id => {
                lastRead = id
                load()
              }
            "
          />
        </FoldOut>
      </aside>
    </div>
  </div>
  <PageState v-else :failed="failed" />
</template>
