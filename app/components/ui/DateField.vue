<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { DateTime } from 'luxon'

/** A day: typed in any of the usual ways, or taken from a month; shown as the shop writes days. ISO inside. */
const props = defineProps<{ label: string; error?: string }>()
/** an ISO date, or null for none */
const model = defineModel<string | null>()
const clock = useClock()
const { at } = useMoment()
const SHOWN = 'ccc d LLL yyyy'
const TYPED = ['yyyy-MM-dd', SHOWN, 'd LLL yyyy', 'd.M.yyyy', 'd/M/yyyy', 'd LLL', 'd.M.'] as const
const today = computed(() => at(clock.now))
const shown = (iso: string | null | undefined) =>
  iso ? DateTime.fromISO(iso, { locale: 'en-GB' }).toFormat(SHOWN) : ''
const text = ref('')
const wrong = ref(false)
watch(model, iso => ((text.value = shown(iso)), (wrong.value = false)), { immediate: true })
function read() {
  const typed = text.value.trim()
  if (!typed) {
    model.value = null
    return
  }
  const found = TYPED.map(f => DateTime.fromFormat(typed, f, { locale: 'en-GB' })).find(d => d.isValid)
  wrong.value = !found
  if (!found) return
  model.value = found.toISODate()
  text.value = shown(model.value)
}
const month = shallowRef<DateTime>(DateTime.utc())
const open = () => {
  month.value = (model.value ? DateTime.fromISO(model.value) : today.value).startOf('month')
}
const MONTH_PX = 400
const DAYS = 42
const days = computed(() => {
  const first = month.value.startOf('week')
  return Array.from({ length: DAYS }, (_, i) => first.plus({ days: i }))
})
const { opens, place } = useRoomBelow(() => MONTH_PX, MONTH_PX)
const id = useId()
const says = computed(() => props.error ?? (wrong.value ? w('date.unreadable') : undefined))
</script>

<template>
  <div>
    <label :for="id" class="block">{{ label }}</label>
    <Popover v-slot="{ close }" as="div" class="relative">
      <input
        :id="id"
        v-model="text"
        class="field !pr-12"
        autocomplete="off"
        :placeholder="w('date.how')"
        :aria-invalid="Boolean(says)"
        :aria-describedby="says ? `${id}-error` : undefined"
        @change="read"
      />
      <PopoverButton
        class="absolute inset-y-0 right-0 w-12 flex items-center justify-center"
        :aria-label="w('date.month', { field: label })"
        @pointerdown="place"
        @click="open"
        ><svg width="20" height="20" viewBox="0 0 20 20" fill="none" stroke="currentColor" aria-hidden="true">
          <path d="M2.5 4.5h15v13h-15zM2.5 8h15M6.5 2v4M13.5 2v4" /></svg
      ></PopoverButton>
      <PopoverPanel class="absolute z-30 p-3 bg-sheet border border-soft w-[22.5rem] max-w-[90vw]" :class="opens">
        <div class="flex items-center justify-between">
          <button
            type="button"
            class="act act-quiet"
            :aria-label="w('date.before')"
            @click="month = month.minus({ months: 1 })"
          >
            ‹
          </button>
          <strong>{{ month.setLocale('en-GB').toFormat('LLLL yyyy') }}</strong>
          <button
            type="button"
            class="act act-quiet"
            :aria-label="w('date.after')"
            @click="month = month.plus({ months: 1 })"
          >
            ›
          </button>
        </div>
        <div class="grid grid-cols-7 mt-2 col text-center">
          <span v-for="d in days.slice(0, 7)" :key="d.weekday" class="caption">{{
            d.setLocale('en-GB').toFormat('ccc')
          }}</span>
          <button
            v-for="d in days"
            :key="d.toISODate()!"
            type="button"
            class="min-h-11"
            :class="[
              d.month === month.month ? '' : 'text-soft',
              d.toISODate() === model ? 'bg-verdigris text-sheet font-bold' : '',
              d.toISODate() === today.toISODate() ? 'outline outline-1' : '',
            ]"
            :aria-label="shown(d.toISODate())"
            @click="((model = d.toISODate()), close())"
          >
            {{ d.day }}
          </button>
        </div>
      </PopoverPanel>
    </Popover>
    <p v-if="says" :id="`${id}-error`" class="text-madder">{{ says }}</p>
  </div>
</template>
