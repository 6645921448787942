<script setup lang="ts">
import type { InternalApi } from 'nitropack/types'
import { LIGHTS, type Light } from '#core/colour'
import { HOUSE_METHODS, HOUSE_SLUGS, type House } from '#core/house'

const session = useSession()
const { hours, money } = useFormat()
const {
  data: shop,
  load,
  failed,
} = useLive<InternalApi['/api/shop']['get']>(
  () => '/api/shop',
  topic => topic === 'shop' || topic === 'all',
)
const form = ref<{
  name: string
  hour: number
  markup: number
  tax: number
  lengthUnit: 'mm' | 'in'
  oneRoom: boolean
  light: Light
  idleH: number
  mailName: string
  mailAddress: string
} | null>(null)
watch(shop, s => {
  if (s)
    form.value = {
      name: s.name,
      hour: s.hour_minor / 100,
      markup: s.material_markup_bp / 100,
      tax: s.tax_bp / 100,
      lengthUnit: s.length_unit,
      oneRoom: Boolean(s.one_room),
      light: s.light,
      idleH: s.idle_h,
      mailName: s.mail_name,
      mailAddress: s.mail_address,
    }
})
async function save() {
  const f = form.value!
  await send('PUT', '/api/shop', {
    rowVersion: shop.value!.rowVersion,
    name: f.name,
    hourMinor: Math.round(f.hour * 100),
    materialMarkupBp: Math.round(f.markup * 100),
    taxBp: Math.round(f.tax * 100),
    lengthUnit: f.lengthUnit,
    oneRoom: f.oneRoom,
    light: f.light,
    idleH: f.idleH,
    mailName: f.mailName,
    mailAddress: f.mailAddress,
  })
  await load()
}
const air = ref({ temperature_C: 20, rh_pct: 45 })
const addAir = () => send('POST', '/api/air', air.value)
async function readLog(event: Event) {
  const input = event.target as HTMLInputElement
  const text = await input.files?.[0]?.text()
  if (text === undefined) return
  const done = await send<{ taken: number; known: number }>('POST', '/api/air-log', { text })
  if (done) useNotes().show(w('airHours.taken', { n: done.taken, known: done.known }))
  input.value = ''
}
const { data: methods, load: loadHouse } = useLive<{ house: House; rowVersions: Record<string, number> }>(
  () => '/api/house',
  topic => topic === 'shop' || topic === 'all',
)
const house = computed(() => methods.value?.house)
async function setHouse(slug: string, choice: string) {
  await send('PUT', '/api/house', { slug, choice, rowVersion: methods.value!.rowVersions[slug] })
  await loadHouse()
}
const days = [1, 2, 3, 4, 5, 6, 7] as const
const clock = (min: number) => `${String(Math.floor(min / 60)).padStart(2, '0')}:${String(min % 60).padStart(2, '0')}`
</script>

<template>
  <div v-if="shop" class="grid lg:grid-cols-2 gap-10">
    <div class="grid gap-8 content-start">
      <section>
        <h1>{{ shop.name }}</h1>
        <form v-if="form && session.may('owner')" class="grid grid-cols-2 gap-3 mt-3" @submit.prevent="save">
          <TextField v-model="form.name" :label="w('shop.name')" />
          <label
            >{{ w('shop.unit') }}
            <select v-model="form.lengthUnit" class="field">
              <option value="mm">mm</option>
              <option value="in">in</option>
            </select></label
          >
          <label
            >{{ w('shop.hour', { currency: shop.currency }) }}
            <input v-model.number="form.hour" type="number" min="0" class="field"
          /></label>
          <label
            >{{ w('shop.markup') }} <input v-model.number="form.markup" type="number" min="0" class="field"
          /></label>
          <label>{{ w('shop.tax') }} <input v-model.number="form.tax" type="number" min="0" class="field" /></label>
          <label
            >{{ w('shop.light') }}
            <select v-model="form.light" class="field">
              <option v-for="l in LIGHTS" :key="l" :value="l">{{ w(`colour.lights.${l}`) }}</option>
            </select></label
          >
          <TextField v-model="form.mailName" :label="w('shop.mailName')" />
          <TextField
            v-model="form.mailAddress"
            :label="w('shop.mailAddress')"
            type="email"
            :error="shop.mail_address || session.mode !== 'shop' ? undefined : w('shop.noAddress')"
          />
          <label
            >{{ w('shop.idle') }} <input v-model.number="form.idleH" type="number" min="1" max="168" class="field"
          /></label>
          <label class="flex items-center gap-3 min-h-11 col-span-2"
            ><input v-model="form.oneRoom" type="checkbox" class="size-6" /> {{ w('shop.oneRoom') }}</label
          >
          <button class="act self-end">{{ w('save') }}</button>
        </form>
        <p v-else>{{ money(shop.hour_minor) }} {{ w('shop.anHour') }}</p>
      </section>
      <ShopBackup :shop="shop" @changed="load" />
      <ShopLicences :licences="shop.licences" :people="shop.people" @changed="load" />
      <section>
        <h2>{{ w('shop.hours') }}</h2>
        <p v-for="d in days" :key="d" class="row flex justify-between !py-1.5 clock">
          <span>{{ w(`weekday.${d}`) }}</span><span>{{
            (shop.hours.week[d] ?? []).map(([a, b]) => `${clock(a!)}–${clock(b!)}`).join(', ') || w('timetable.closed')
          }}</span>
        </p>
        <p class="caption">{{ shop.zone }}</p>
      </section>
      <form
        v-if="session.may('owner', 'lead', 'finisher')"
        class="flex flex-wrap gap-3 items-end"
        @submit.prevent="addAir"
      >
        <h2 class="w-full">{{ w('shop.air') }}</h2>
        <label class="w-28"
          >°C <input v-model.number="air.temperature_C" type="number" step="0.1" class="field"
        /></label>
        <label class="w-28">% <input v-model.number="air.rh_pct" type="number" class="field" /></label>
        <button class="act act-quiet">{{ w('shop.addAir') }}</button>
        <label class="w-full"
          >{{ w('airHours.file') }}
          <input type="file" accept=".csv,.txt,text/csv" class="field" @change="readLog" /><span class="caption">{{
            w('airHours.fileWhy')
          }}</span></label
        >
      </form>
    </div>
    <div class="grid gap-8 content-start">
      <ShopPeople :people="shop.people" @changed="load" />
      <ShopSessions />
      <details v-if="house" data-test="shop-house">
        <summary class="min-h-11 py-2 underline cursor-pointer">{{ w('house.shop') }}</summary>
        <p class="caption">{{ w('house.shopWhy') }}</p>
        <label v-for="slug in HOUSE_SLUGS" :key="slug" class="row block"
          >{{ HOUSE_METHODS[slug].asks }}
          <select
            class="field"
            :value="house[slug]"
            :disabled="!session.may('owner')"
            @change="setHouse(slug, ($event.target as HTMLSelectElement).value)"
          >
            <option
              v-for="(o, key) in HOUSE_METHODS[slug].options as Record<string, { says: string; why: string }>"
              :key="key"
              :value="key"
            >
              {{ o.says }}: {{ o.why }}
            </option>
          </select>
        </label>
      </details>
      <NuxtLink to="/judgement" class="underline min-h-11 inline-flex items-center">{{ w('exam.howSure') }}</NuxtLink>
      <details>
        <summary class="min-h-11 py-2 underline cursor-pointer">{{ w('shop.defaults') }}</summary>
        <p class="caption">{{ w('shop.defaultsWhy') }}</p>
        <div v-for="m in shop.materials" :key="m.slug" class="row grid grid-cols-[1fr_auto] gap-3 caption clock">
          <span class="text-ink">{{ m.name }}</span><span
            >{{ m.wet_um ? `${m.wet_um} µm` : `${m.spread_g_m2?.join(' / ')} g/m²` }} · {{ m.density }} g/ml ·
            {{ hours(m.recoat_min[0]!) }}</span
          >
        </div>
      </details>
    </div>
  </div>
  <PageState v-else :failed="failed" />
</template>
