<script setup lang="ts">
import { countOf, holeFit, type HoleFit, type Holes, ITEM_STATES, type PlaceKind, PLACE_KINDS } from '#core/parts'

const route = useRoute()
const session = useSession()
const id = computed(() => Number(route.params.id))
const {
  draft: item,
  errors,
  submit,
} = useForm('POST /api/pieces/:id/items', () => ({
  name: '',
  kind: 'hardware',
  count: 1,
  state: 'present',
  set: '',
  note: '',
  mark: '',
}))
const chosen = ref<number | null>(null)
const places = ref<AnswerOf<'GET /api/places'>>([])
onMounted(async () => {
  places.value = await call('GET /api/places')
})
const blank = () => ({ place: '', placeKind: 'bag' as PlaceKind, centres: '', diameter: '', plateW: '', plateH: '' })
const edit = ref(blank())
watch(chosen, () => {
  fit.value = null
  edit.value = blank()
})
async function add(load: () => Promise<void>) {
  if (await submit({ id: id.value })) {
    Object.assign(item.value, { name: '', count: 1, note: '', mark: '' })
    await load()
  }
}
async function change(i: ExamItem, what: Partial<BodyOf<'PATCH /api/items/:id'>>, load: () => Promise<void>) {
  await send('PATCH /api/items/:id', { id: i.id, body: { rowVersion: i.row_version, ...what } })
  await load()
}
async function put(i: ExamItem, load: () => Promise<void>) {
  await change(i, { place: edit.value.place ? { code: edit.value.place, kind: edit.value.placeKind } : null }, load)
  places.value = await call('GET /api/places')
}
/** What is typed about holes; null while centres or diameter are missing. */
function typed(): Holes | null {
  const number = (text: string) => (text.trim() ? Number(text.replace(',', '.')) : null)
  const centres = edit.value.centres
    .split(/[\s;]+/)
    .filter(Boolean)
    .map(c => Number(c.replace(',', '.')))
  const diameter = number(edit.value.diameter)
  return centres.length && diameter
    ? {
        centres_mm: centres,
        diameter_mm: diameter,
        plate_w_mm: number(edit.value.plateW),
        plate_h_mm: number(edit.value.plateH),
      }
    : null
}
const fit = ref<HoleFit | null>(null)
function check(i: ExamItem) {
  const fresh = typed()
  if (i.holes && fresh) fit.value = holeFit(i.holes, fresh)
  else useNotes().show(w('parts.noHoles'), 'stop')
}
async function measure(i: ExamItem, load: () => Promise<void>) {
  const holes = typed()
  if (!holes) return useNotes().show(w('parts.noHoles'), 'stop')
  await change(i, { holes: { ...holes, centres_mm: [...holes.centres_mm] } }, load)
}
const says = ref('')
async function ask(i: ExamItem, load: () => Promise<void>) {
  if (await send('POST /api/items/:id/question', { id: i.id, body: { words: says.value, days: 14 } })) {
    useNotes().show(w('parts.asked'))
    await load()
  }
}
const away = (i: ExamItem) => countOf({ count: i.count, out: i.taken_out, back: i.put_back, state: i.state }).away
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-x-10 gap-y-8">
      <section>
        <h2>{{ w('parts.title') }}</h2>
        <p v-if="!exam.items.length" class="mt-1">{{ w('parts.none') }}</p>
        <LabelLinks v-else :says="w('parts.labels')" :address="`/api/pieces/${id}/labels`" :query="{ of: 'parts' }" />
        <article v-for="i in exam.items" :key="i.id" class="row" data-test="item" :data-mark="i.mark">
          <button
            class="w-full text-left flex flex-wrap items-baseline gap-x-4 min-h-11"
            :aria-expanded="chosen === i.id"
            @click="chosen = chosen === i.id ? null : i.id"
          >
            <strong class="text-xl clock w-14">{{ i.mark }}</strong><span class="grow"
              ><strong>{{ i.count > 1 ? `${i.count} × ` : '' }}{{ i.name }}</strong
              >{{ ' ' }} <span v-if="i.kind === 'mark'" class="text-moss">{{ w('parts.kept') }}</span><span
                v-if="i.set_name"
                class="caption"
              >
                · {{ w('parts.ofSet', { set: i.set_name }) }}</span
              ></span
            >
            <span v-if="i.state !== 'present'" class="text-madder font-bold"
              >{{ w(`parts.${i.state}`) }}{{ i.answer ? `: ${w(`parts.answer.${i.answer}`)}` : '' }}</span
            >
            <span v-if="i.place" class="clock">{{ i.place }}</span><span v-if="away(i) > 0" class="text-ochre clock">{{
              w('parts.away', { n: away(i) })
            }}</span>
          </button>
          <div v-if="chosen === i.id && can" class="grid gap-4 pl-4 border-l-2 border-line mt-2">
            <div class="flex flex-wrap gap-2 items-end">
              <label
                >{{ w('parts.out') }}
                <input
                  class="field !w-24"
                  type="number"
                  min="0"
                  :max="i.count"
                  :value="i.taken_out ?? ''"
                  @change="
                    change(
                      i,
                      {
                        out:
                          ($event.target as HTMLInputElement).value === ''
                            ? null
                            : Number(($event.target as HTMLInputElement).value),
                      },
                      load,
                    )
                  "
              /></label>
              <label
                >{{ w('parts.back') }}
                <input
                  class="field !w-24"
                  type="number"
                  min="0"
                  :max="i.taken_out ?? 0"
                  :value="i.put_back ?? ''"
                  :disabled="i.taken_out === null"
                  @change="
                    change(
                      i,
                      {
                        back:
                          ($event.target as HTMLInputElement).value === ''
                            ? null
                            : Number(($event.target as HTMLInputElement).value),
                      },
                      load,
                    )
                  "
              /></label>
              <button v-if="i.taken_out === null" class="act act-quiet" @click="change(i, { out: i.count }, load)">
                {{ w('parts.allOut') }}</button><button
                v-else-if="away(i) > 0"
                class="act act-quiet"
                @click="change(i, { back: i.taken_out }, load)"
              >
                {{ w('parts.allBack') }}
              </button>
            </div>
            <form class="flex flex-wrap gap-2 items-end" @submit.prevent="put(i, load)">
              <label
                >{{ w('parts.where') }}
                <input
                  v-model="edit.place"
                  class="field !w-36"
                  list="places"
                  :placeholder="i.place ?? 'BAG-12'"
                  maxlength="20" /></label
              ><datalist id="places"><option v-for="p in places" :key="p.code" :value="p.code" /></datalist>
              <ChoiceField
                v-model="edit.placeKind"
                :label="w('parts.placeKind')"
                :options="optionsOf(PLACE_KINDS, k => w(`place.${k}`))"
              />
              <button class="act act-quiet">{{ i.set_name ? w('parts.putSet') : w('parts.put') }}</button>
              <a
                v-if="i.place"
                class="act act-quiet no-underline"
                :href="`/api/places/${i.place}/label`"
                target="_blank"
                >{{ w('parts.label') }}</a
              >
            </form>
            <RadioField
              v-if="i.kind === 'hardware'"
              :model-value="i.state"
              :label="w('parts.state')"
              label-hidden
              :options="optionsOf(ITEM_STATES, x => w(`parts.${x}`))"
              @update:model-value="change(i, { state: $event }, load)"
            />
            <form
              v-if="i.kind === 'hardware' && i.state !== 'present'"
              class="grid grid-cols-[1.5fr_1fr_1fr_1fr_auto] gap-2 items-end"
              @submit.prevent="measure(i, load)"
            >
              <label
                >{{ w('parts.centres') }}
                <input
                  v-model="edit.centres"
                  class="field"
                  :placeholder="i.holes?.centres_mm.join('; ') ?? '0; 96'" /></label
              ><label
                >{{ w('parts.diameter') }}
                <input v-model="edit.diameter" class="field" :placeholder="String(i.holes?.diameter_mm ?? '')"
              /></label>
              <label
                >{{ w('parts.plateW') }}
                <input v-model="edit.plateW" class="field" :placeholder="String(i.holes?.plate_w_mm ?? '')" /></label
              ><label
                >{{ w('parts.plateH') }}
                <input v-model="edit.plateH" class="field" :placeholder="String(i.holes?.plate_h_mm ?? '')" /></label
              ><span class="flex gap-1"
                ><button class="act act-quiet">{{ w('save') }}</button
                ><button v-if="i.holes" type="button" class="act act-quiet" @click="check(i)">
                  {{ w('parts.check') }}
                </button></span
              >
              <p v-if="fit" class="verdict col-span-full" :class="fit.fits ? '' : 'verdict-stop'" data-test="fit">
                <strong>{{ fit.fits ? w('parts.fits') : w('parts.fitsNot') }}</strong> {{ fit.says.join(' ') }}
              </p>
            </form>
            <form
              v-if="i.kind === 'hardware' && i.state !== 'present' && session.may('quote')"
              class="flex gap-2 items-end"
              @submit.prevent="ask(i, load)"
            >
              <label class="grow">{{ w('client.words') }} <input v-model="says" class="field" maxlength="1000" /></label
              ><button class="act">{{ w('parts.ask') }}</button>
            </form>
          </div>
        </article>
      </section>
      <section v-if="can">
        <h2>{{ w('parts.add') }}</h2>
        <form class="grid grid-cols-2 gap-3 mt-2" @submit.prevent="add(load)">
          <TextField v-model="item.name" class="col-span-2" :label="w('parts.name')" :error="errors.name" />
          <RadioField
            v-model="item.kind"
            class="col-span-2"
            :label="w('parts.kind')"
            label-hidden
            :options="optionsOf(['hardware', 'part', 'mark'], k => w(`parts.kinds.${k}`))"
          />
          <NumberField v-model="item.count" :label="w('intake.count')" :min="1" :max="500" :error="errors.count" />
          <label
            >{{ w('parts.mark') }}
            <input v-model="item.mark" class="field" maxlength="12" :placeholder="w('parts.proposed')"
          /></label>
          <label>{{ w('parts.set') }} <input v-model="item.set" class="field" maxlength="60" /></label>
          <ChoiceField
            v-if="item.kind === 'hardware'"
            v-model="item.state!"
            :label="w('parts.state')"
            :options="optionsOf(ITEM_STATES, x => w(`parts.${x}`))"
          />
          <label class="col-span-2"
            >{{ w('exam.note') }} <input v-model="item.note" class="field" maxlength="500"
          /></label>
          <button class="act col-span-2">{{ w('parts.addIt') }}</button>
        </form>
        <p class="caption mt-3">{{ w('parts.markWhy') }}</p>
      </section>
    </div>
  </ExaminePage>
</template>
