<script setup lang="ts">
import { PATCH_METHODS, PATCH_RESULTS } from '#core/examine'

const route = useRoute()
const session = useSession()
const { hours, dayTime, money } = useFormat()
const id = computed(() => Number(route.params.id))
const { data: shop } = useLive('GET /api/shop', topic => topic === 'shop')
const {
  draft: patch,
  errors,
  submit,
} = useForm('POST /api/pieces/:id/patches', () => ({
  faceId: null,
  method: 'stripper',
  length: '200',
  width: '200',
  minutes: null,
  result: 'all-off',
  note: '',
}))
async function addPatch(exam: Examination, load: () => Promise<void>) {
  if (await submit({ id: id.value }, { faceId: patch.value.faceId ?? exam.faces[0]!.id })) {
    patch.value.minutes = null
    await load()
  }
}
const labour = (min: number) =>
  shop.value && session.may('see-prices')
    ? money(Math.round((min / 60) * shop.value.hour_minor), shop.value.currency)
    : ''
</script>

<template>
  <ExaminePage v-slot="{ exam, load, can }">
    <div class="max-w-4xl">
      <h2>{{ w('patch.title') }}</h2>
      <p class="caption">{{ w('patch.why') }}</p>
      <table v-if="exam.patches.length" class="w-full text-left mt-2">
        <thead class="caption">
          <tr>
            <th>{{ w('patch.method') }}</th>
            <th>{{ w('patch.size') }}</th>
            <th class="text-right pr-6">min</th>
            <th>{{ w('patch.result') }}</th>
            <th class="text-right">{{ w('patch.piece') }}</th>
            <th class="text-right">{{ w('patch.labour') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in exam.patches" :key="p.at" class="border-t border-line" data-test="patch">
            <td class="py-2">
              {{ w(`patch.${p.method}`)
              }}<span class="caption block">{{ p.note }} {{ p.by }}, {{ dayTime(p.at) }}</span>
            </td>
            <td class="clock">{{ Math.round(p.length_mm) }} × {{ Math.round(p.width_mm) }}</td>
            <td class="clock text-right pr-6">{{ p.minutes }}</td>
            <td>{{ w(`patch.${p.result}`) }}</td>
            <td class="clock text-right">{{ hours(p.piece_min) }}</td>
            <td class="clock text-right">{{ labour(p.piece_min) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="exam.patchAdvice" class="verdict mt-2" data-test="patch-advice">
        <strong>{{
          exam.patchAdvice.better
            ? w('patch.better', { method: w(`patch.${exam.patchAdvice.better}`) })
            : w('patch.neither')
        }}</strong>{{ ' ' }}
        <template v-if="exam.patchAdvice.saves_min > 0">{{
          w('patch.saves', { t: hours(exam.patchAdvice.saves_min) })
        }}</template>
        {{ exam.patchAdvice.says.join(' ') }}
      </p>
      <form
        v-if="can && exam.faces.length"
        class="grid grid-cols-2 sm:grid-cols-3 gap-2 mt-3 items-end"
        @submit.prevent="addPatch(exam, load)"
      >
        <ChoiceField
          v-model="patch.method"
          :label="w('patch.method')"
          :options="optionsOf(PATCH_METHODS, m => w(`patch.${m}`))"
        />
        <ChoiceField
          v-model="patch.faceId"
          :label="w('intake.face')"
          :options="exam.faces.map(f => ({ value: f.id, label: `${f.part}, ${f.name}` }))"
          :none="`${exam.faces[0]!.part}, ${exam.faces[0]!.name}`"
        />
        <ChoiceField
          v-model="patch.result"
          :label="w('patch.result')"
          :options="optionsOf(PATCH_RESULTS, r => w(`patch.${r}`))"
        />
        <TextField
          v-model="patch.length"
          :label="`${w('intake.length')} (${session.shop?.length_unit})`"
          :error="errors.length"
        />
        <TextField
          v-model="patch.width"
          :label="`${w('intake.width')} (${session.shop?.length_unit})`"
          :error="errors.width"
        />
        <NumberField
          v-model="patch.minutes"
          :label="w('patch.minutes')"
          :min="0.5"
          :step="0.5"
          :error="errors.minutes"
        />
        <input
          v-model="patch.note"
          class="field col-span-2"
          maxlength="500"
          :placeholder="w('patch.risk')"
          :aria-label="w('patch.risk')"
        /><button class="act act-quiet">{{ w('patch.add') }}</button>
      </form>
      <p class="caption mt-3">{{ w('patch.used') }}</p>
    </div>
  </ExaminePage>
</template>
