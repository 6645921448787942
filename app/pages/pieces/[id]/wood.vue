<script setup lang="ts">
import { MEASURES } from '#core/acts'
import { isWooden, SUBSTRATES } from '#core/piece'
import { movementOf, speciesOf, SPECIES, USUAL_ROOM } from '#core/wood'

const { page, load: loadPiece } = inject(PIECE)!
const route = useRoute()
const session = useSession()
const { dayTime } = useFormat()
const id = computed(() => Number(route.params.id))
const {
  draft: reading,
  errors,
  submit,
} = useForm('POST /api/pieces/:id/moisture', () => ({
  faceId: null,
  reading_pct: null,
  thickness: '20',
}))
const room = ref({ dry: Math.round(USUAL_ROOM.dryRh * 100), humid: Math.round(USUAL_ROOM.humidRh * 100) })
watchEffect(() => {
  const p = page.value?.piece
  if (p?.room_dry_rh && p.room_humid_rh)
    room.value = { dry: Math.round(p.room_dry_rh * 100), humid: Math.round(p.room_humid_rh * 100) }
})
const veneers = ref<Record<number, string>>({})
const nameOf = (exam: Examination, face: number) => {
  const f = exam.faces.find(x => x.id === face)
  return f ? `${f.part}, ${f.name}` : ''
}
async function measure(exam: Examination, load: () => Promise<void>) {
  if (await submit({ id: id.value }, { faceId: reading.value.faceId ?? exam.faces[0]!.id })) {
    reading.value.reading_pct = null
    await load()
  }
}
async function change(face: ExamFace, what: Partial<BodyOf<'PATCH /api/faces/:id'>>, load: () => Promise<void>) {
  await send('PATCH /api/faces/:id', { id: face.id, body: { rowVersion: face.rowVersion, ...what } })
  await load()
}
async function setRoom(load: () => Promise<void>) {
  if (
    await send('PATCH /api/pieces/:id', {
      id: id.value,
      body: {
        rowVersion: page.value!.piece.row_version,
        roomDryRh: room.value.dry / 100,
        roomHumidRh: room.value.humid / 100,
      },
    })
  )
    await Promise.all([load(), loadPiece()])
}
const film = ref<{ faceId: number | null; um: number | null }>({ faceId: null, um: null })
/** A blank takes the reading back. */
async function gauge(exam: Examination, load: () => Promise<void>) {
  const face = exam.faces.find(f => f.id === film.value.faceId) ?? exam.faces[0]!
  if (film.value.um === face.film_um) return
  await change(face, { filmUm: film.value.um }, load)
  film.value.um = null
}
const woods = (exam: Examination) =>
  [...new Set(exam.faces.filter(f => isWooden(f.substrate)).map(f => f.species))].map(speciesOf)
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-x-10 gap-y-8">
      <section>
        <h2>{{ w('exam.woodOf') }}</h2>
        <div
          v-for="f in exam.faces"
          :key="f.id"
          class="row grid grid-cols-2 sm:grid-cols-[1fr_8.5rem_10.5rem_6.5rem] gap-2 items-center"
          data-test="wood-face"
        >
          <span>{{ nameOf(exam, f.id) }}</span>
          <span v-if="!isWooden(f.substrate)" />
          <FindField
            v-else
            :model-value="f.species"
            :label="`${w('intake.species')}: ${nameOf(exam, f.id)}`"
            label-hidden
            :options="namedOptions(SPECIES)"
            :disabled="!can"
            @update:model-value="change(f, { species: $event }, load)"
          />
          <ChoiceField
            :model-value="f.substrate"
            :label="`${w('intake.substrate')}: ${nameOf(exam, f.id)}`"
            label-hidden
            :options="optionsOf(SUBSTRATES, x => w(`substrate.${x}`))"
            :disabled="!can"
            @update:model-value="change(f, { substrate: $event }, load)"
          />
          <form v-if="f.substrate === 'veneer'" @submit.prevent="change(f, { veneer: veneers[f.id] ?? '' }, load)">
            <input
              class="field"
              :value="veneers[f.id] ?? f.veneer_typed ?? ''"
              :disabled="!can"
              :placeholder="`${w('exam.guess')} ${exam.veneers.find(v => v.faceIds.includes(f.id))?.mm ?? ''}`"
              :aria-label="`${w('intake.veneer')}: ${nameOf(exam, f.id)}`"
              @input="veneers[f.id] = ($event.target as HTMLInputElement).value"
              @change="change(f, { veneer: ($event.target as HTMLInputElement).value }, load)"
            />
          </form>
          <span v-else />
        </div>
        <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="w('exam.woodOf')">
          <table class="apart w-full text-left mt-4">
            <thead class="caption">
              <tr>
                <th>{{ w('intake.species') }}</th>
                <th>{{ w('exam.pores') }}</th>
                <th>{{ w('exam.blotches') }}</th>
                <th>{{ w('exam.tannin') }}</th>
                <th class="text-right">kg/m³</th>
                <th class="text-right">{{ w('exam.tangential') }}</th>
                <th class="text-right">{{ w('exam.radial') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="s in woods(exam)" :key="s.slug" class="border-t border-line">
                <td class="py-2">
                  {{ s.name }}<span v-if="s.cites" class="caption block">{{ s.cites }}</span>
                </td>
                <td>{{ w(`exam.${s.pores}`) }}</td>
                <td>{{ s.blotches ? w('refinished.yes') : w('refinished.no') }}</td>
                <td>{{ s.tannin ? w('refinished.yes') : w('refinished.no') }}</td>
                <td class="col text-right">{{ s.density_kg_m3 }}</td>
                <td class="clock text-right">
                  {{ movementOf(s.slug).tangential }}{{ movementOf(s.slug).assumed ? ' ?' : '' }}
                </td>
                <td class="clock text-right">
                  {{ movementOf(s.slug).radial }}{{ movementOf(s.slug).assumed ? ' ?' : '' }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="caption mt-1">{{ w('exam.woodSource') }}</p>
        <VerdictList
          :id="id"
          :verdicts="exam.verdicts.filter(v => ['one-stain-two-colours', 'veneer-estimated', 'cites'].includes(v.slug))"
          :can="can"
          @changed="load"
        />
      </section>
      <section>
        <h2>{{ w('exam.moisture') }}</h2>
        <div v-for="m in exam.moisture" :key="m.faceId" class="row" data-test="moisture">
          <p>
            <strong
              >{{ nameOf(exam, m.faceId) }}: <span class="clock">{{ m.reading_pct }} %</span></strong
            >{{ ' ' }}
            <span :class="m.verdict === 'ready' ? 'text-moss' : m.verdict === 'wait' ? 'text-madder' : 'text-ochre'">{{
              w(`exam.dry.${m.verdict}`)
            }}</span>
          </p>
          <p v-if="m.equilibrium_pct !== null" class="caption">
            {{ w('exam.equilibrium', { emc: m.equilibrium_pct.toFixed(1), most: (m.equilibrium_pct + 2).toFixed(1) }) }}
            <template v-if="exam.air"
              >({{ exam.air.temperature_C.toFixed(1) }} °C, {{ Math.round(exam.air.rh * 100) }} %)</template
            >
          </p>
          <p v-if="m.verdict === 'wait'">
            <template v-if="m.likely_d">{{
              w('exam.waitDays', {
                n: Math.max(1, Math.round(m.likely_d)),
                basis: w(`exam.basis.${m.basis ?? 'thickness'}`),
              })
            }}</template><template v-else>{{ w('exam.stalled') }}</template>
          </p>
          <p class="caption">{{ m.readings.map(r => `${r.reading_pct} % ${dayTime(r.at)} ${r.by}`).join(' · ') }}</p>
        </div>
        <form
          v-if="can && exam.faces.length"
          class="row grid grid-cols-[1fr_5rem_6rem_auto] gap-2 items-end"
          @submit.prevent="measure(exam, load)"
        >
          <ChoiceField
            v-model="reading.faceId"
            :label="w('intake.face')"
            :options="exam.faces.map(f => ({ value: f.id, label: nameOf(exam, f.id) }))"
            :none="nameOf(exam, exam.faces[0]!.id)"
          />
          <label
            >%
            <input
              v-model.number="reading.reading_pct"
              class="field"
              type="number"
              step="0.1"
              min="1"
              max="100"
              inputmode="decimal"
              :aria-label="w('exam.reading')"
              required
          /></label>
          <TextField
            v-model="reading.thickness"
            :label="`${w('exam.thick')} (${session.shop?.length_unit})`"
            :error="errors.thickness"
          />
          <button class="act">{{ w('exam.record') }}</button>
        </form>
        <VerdictList :id="id" :verdicts="exam.verdicts.filter(v => v.slug === 'too-wet')" :can="can" @changed="load" />

        <h2 class="mt-6">{{ w('exam.film') }}</h2>
        <p v-for="f in exam.faces.filter(x => x.film_um !== null)" :key="f.id" class="row" data-test="film">
          {{ nameOf(exam, f.id) }}: <strong class="clock">{{ f.film_um }} µm</strong>
        </p>
        <form
          v-if="can && exam.faces.length"
          class="row grid grid-cols-[1fr_7rem_auto] gap-2 items-end"
          @submit.prevent="gauge(exam, load)"
        >
          <ChoiceField
            v-model="film.faceId"
            :label="w('intake.face')"
            :options="exam.faces.map(f => ({ value: f.id, label: nameOf(exam, f.id) }))"
            :none="nameOf(exam, exam.faces[0]!.id)"
          />
          <NumberField
            v-model="film.um"
            :label="w('exam.filmUm')"
            :min="MEASURES.film_um.least"
            :max="MEASURES.film_um.most"
          />
          <button class="act">{{ w('exam.record') }}</button>
        </form>
        <p class="caption">{{ w('exam.filmWhy') }}</p>

        <h2 class="mt-6">{{ w('exam.cracks') }}</h2>
        <VerdictList
          :id="id"
          :verdicts="exam.verdicts.filter(v => v.slug.startsWith('crack'))"
          :can="can"
          @changed="load"
        />
        <p v-if="!exam.cracks.length" class="mt-1">{{ w('exam.noCrack') }}</p>
        <form
          v-if="session.may('take-in')"
          class="row grid grid-cols-[1fr_1fr_auto] gap-2 items-end mt-3"
          @submit.prevent="setRoom(load)"
        >
          <label
            >{{ w('exam.roomDry') }}
            <input v-model.number="room.dry" type="number" min="2" max="98" class="field" /></label
          ><label
            >{{ w('exam.roomHumid') }}
            <input v-model.number="room.humid" type="number" min="2" max="98" class="field" /></label
          ><button class="act act-quiet">{{ w('save') }}</button>
        </form>
        <p class="caption">{{ exam.room ? w('exam.roomAsked') : w('exam.roomUsual') }}</p>
      </section>
    </div>
  </ExaminePage>
</template>
