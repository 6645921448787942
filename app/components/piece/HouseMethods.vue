<script setup lang="ts">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { HOUSE_METHODS, HOUSE_SLUGS, type House } from '#core/house'
import type { HouseEffect } from '~/workers/house.worker'

/** The house methods on this piece: both sides, what each would change here, and a choice for this piece alone. */
const props = defineProps<Trial & { can: boolean }>()
const emit = defineEmits<{ change: [overrides: Partial<House>] }>()
const { hours, money } = useFormat()
const planning = shallowRef<Awaited<ReturnType<typeof planningOf>> | null>(null)
const effects = shallowRef<HouseEffect[] | null>(null)
const progress = ref(0)
let worker: Worker | null = null
const house = computed(() => (planning.value ? ({ ...planning.value.house, ...props.overrides } as House) : null))
function work() {
  if (!planning.value || !house.value) return
  worker?.terminate()
  worker = new Worker(new URL('../../workers/house.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = (event: MessageEvent<{ progress?: number; effects?: HouseEffect[] }>) => {
    if (event.data.progress !== undefined) progress.value = event.data.progress
    if (event.data.effects) effects.value = event.data.effects
  }
  effects.value = null
  worker.postMessage(questionOf(planning.value, props))
}
onMounted(async () => {
  planning.value = await planningOf(props.id)
  work()
})
watch(() => JSON.stringify([props.pick, props.route, props.overrides, props.faces]), work)
onUnmounted(() => worker?.terminate())
const effect = (slug: keyof House, option: string) => effects.value?.find(e => e.slug === slug && e.option === option)
const options = (slug: keyof House) =>
  Object.entries(HOUSE_METHODS[slug].options as Record<string, { says: string; why: string }>)
const signed = (n: number, text: string) => `${n > 0 ? '+' : '−'}${text}`
function says(e: HouseEffect): string {
  const parts = [
    e.minutes ? signed(e.minutes, hours(Math.abs(e.minutes))) : '',
    e.days ? signed(e.days, `${Math.abs(e.days)} d`) : '',
    e.price_minor ? signed(e.price_minor, money(Math.abs(e.price_minor))) : '',
  ].filter(Boolean)
  return parts.join(', ')
}
</script>

<template>
  <div v-if="house">
    <ProgressLine v-if="!effects" class="caption" :label="w('house.working')" :done="progress" />
    <div
      v-for="slug in HOUSE_SLUGS"
      :key="slug"
      class="row grid lg:grid-cols-[16rem_1fr] gap-x-6 gap-y-2"
      data-test="house"
      :data-slug="slug"
    >
      <h3>
        {{ HOUSE_METHODS[slug].asks }}<span v-if="overrides[slug]" class="caption block">{{ w('house.here') }}</span>
      </h3>
      <RadioGroup
        class="grid sm:grid-cols-2 gap-2"
        :aria-label="HOUSE_METHODS[slug].asks"
        :model-value="house[slug]"
        :disabled="!can"
        @update:model-value="emit('change', { ...overrides, [slug]: $event })"
      >
        <RadioGroupOption
          v-for="[option, o] in options(slug)"
          :key="option"
          v-slot="{ checked }"
          as="template"
          :value="option"
        >
          <button
            type="button"
            :disabled="!can"
            class="text-left border px-3 py-2 min-h-12"
            :class="checked ? 'border-verdigris border-2 bg-verdigris-wash' : 'border-line'"
          >
            <strong>{{ o.says }}</strong>{{ ' ' }}
            <span
              v-if="effect(slug, option)"
              class="clock"
              :class="says(effect(slug, option)!) ? 'text-ochre' : 'text-soft'"
              >{{ says(effect(slug, option)!) || w('house.same') }}</span
            >
            <span class="caption block">{{ o.why }}</span>
          </button></RadioGroupOption
        >
      </RadioGroup>
    </div>
  </div>
</template>
