<script setup lang="ts">
import { LIGHTS } from '#core/colour'
import { TEMPERATURE_UNITS } from '#core/units'

/** What the whole shop works with: its name, unit, hour, markup, tax, light, mail. The owner changes it. */
const props = defineProps<{ shop: AnswerOf<'GET /api/shop'> }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { money } = useFormat()
const fresh = () => ({
  name: props.shop.name,
  lengthUnit: props.shop.length_unit,
  light: props.shop.light,
  idleH: props.shop.idle_h,
  tabletIdleMin: props.shop.tablet_idle_min,
  handAirMin: props.shop.hand_air_min,
  temperatureUnit: props.shop.temperature_unit,
  mailName: props.shop.mail_name,
  mailAddress: props.shop.mail_address,
  rowVersion: props.shop.rowVersion,
  hourMinor: props.shop.hour_minor,
  materialMarkupBp: props.shop.material_markup_bp,
  taxBp: props.shop.tax_bp,
})
const { draft: form, errors, submit } = useForm('PUT /api/shop', fresh)
let known = fresh()
// somebody else changed the shop: what was typed here stays, all else is as it is now
watch(
  () => props.shop.rowVersion,
  () => {
    const now = fresh()
    const typed = Object.entries(form.value).filter(([field, value]) => value !== known[field as keyof typeof known])
    form.value = { ...now, ...Object.fromEntries(typed), rowVersion: now.rowVersion }
    known = now
  },
)
/** Money and percent are typed in whole units, kept in hundredths. */
const inHundredths = (field: 'hourMinor' | 'materialMarkupBp' | 'taxBp') =>
  computed({
    get: () => (form.value[field] === null ? null : form.value[field] / 100),
    set: value => {
      form.value[field] = value === null ? null : Math.round(value * 100)
    },
  })
const hour = inHundredths('hourMinor')
const markup = inHundredths('materialMarkupBp')
const tax = inHundredths('taxBp')
async function save() {
  if (await submit({})) emit('changed')
}
</script>

<template>
  <section>
    <h1>{{ shop.name }}</h1>
    <form v-if="session.may('shop')" class="grid grid-cols-2 gap-3 mt-3" @submit.prevent="save">
      <TextField v-model="form.name" :label="w('shop.name')" :error="errors.name" />
      <ChoiceField v-model="form.lengthUnit" :label="w('shop.unit')" :options="optionsOf(['mm', 'in'])" />
      <NumberField
        v-model="hour"
        :label="w('shop.hour', { currency: shop.currency })"
        :min="0"
        step="any"
        :error="errors.hourMinor"
      />
      <NumberField v-model="markup" :label="w('shop.markup')" :min="0" step="any" :error="errors.materialMarkupBp" />
      <NumberField v-model="tax" :label="w('shop.tax')" :min="0" step="any" :error="errors.taxBp" />
      <ChoiceField
        v-model="form.light"
        :label="w('shop.light')"
        :options="optionsOf(LIGHTS, l => w(`colour.lights.${l}`))"
      />
      <TextField v-model="form.mailName" :label="w('shop.mailName')" :error="errors.mailName" />
      <TextField
        v-model="form.mailAddress"
        :label="w('shop.mailAddress')"
        type="email"
        :error="errors.mailAddress ?? (shop.mail_address || session.mode !== 'shop' ? undefined : w('shop.noAddress'))"
      />
      <NumberField v-model="form.idleH" :label="w('shop.idle')" :min="1" :max="168" :error="errors.idleH" />
      <NumberField
        v-model="form.tabletIdleMin"
        :label="w('shop.tabletIdle')"
        :min="1"
        :max="120"
        :error="errors.tabletIdleMin"
      />
      <NumberField
        v-model="form.handAirMin"
        :label="w('shop.handAir')"
        :min="1"
        :max="480"
        :error="errors.handAirMin"
      />
      <ChoiceField
        v-model="form.temperatureUnit"
        :label="w('shop.temperatures')"
        :options="optionsOf(TEMPERATURE_UNITS, u => `°${u}`)"
      />
      <button class="act justify-self-start">{{ w('save') }}</button>
    </form>
    <p v-else-if="session.may('see-prices')">{{ money(shop.hour_minor) }} {{ w('shop.anHour') }}</p>
  </section>
</template>
