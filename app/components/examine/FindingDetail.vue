<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { parseLength_mm } from '#core/units'
import { WISHES } from '#core/plan'

/** The chosen finding: grade, wish, size, note, photographs; move it, or take it back. */
const props = defineProps<{ finding: ExamFinding; exam: Examination; moving: boolean }>()
const emit = defineEmits<{ change: [next: Record<string, unknown>]; withdraw: []; move: []; close: []; draw: [] }>()
const session = useSession()
const { t } = useI18n()
const note = ref('')
const width = ref('')
watch(
  () => props.finding,
  f => {
    note.value = f.note
    width.value = f.place.size_mm ? String(f.place.size_mm) : ''
  },
  { immediate: true },
)
const measured = computed(() => {
  const p = props.finding.place
  if (p.shape === 'line') return `${Math.round(Math.hypot(p.x2_mm - p.x_mm, p.y2_mm - p.y_mm))} mm`
  if (p.shape === 'area')
    return `${Math.round(Math.abs(p.x2_mm - p.x_mm))} × ${Math.round(Math.abs(p.y2_mm - p.y_mm))} mm`
  return ''
})
function sized() {
  const mm = parseLength_mm(width.value, session.shop?.length_unit ?? 'mm')
  if (mm === null) return useNotes().show(t('exam.badLength'), 'stop')
  emit('change', { place: { ...props.finding.place, size_mm: mm } })
}
const toggle = (address: string) =>
  emit('change', {
    photographs: props.finding.photographs.includes(address)
      ? props.finding.photographs.filter(a => a !== address)
      : [...props.finding.photographs, address],
  })
</script>

<template>
  <section data-test="detail">
    <div class="flex items-baseline gap-3">
      <h2 class="grow">
        <span class="clock">{{ finding.number }}</span> {{ $t(`finding.${finding.kind}`) }}
      </h2>
      <button class="act act-quiet" @click="emit('close')">{{ $t('close') }}</button>
    </div>
    <p v-if="finding.place.shape === 'unplaced'" class="verdict mt-1">
      {{ $t('exam.notDrawn') }} <button class="act mt-2" @click="emit('draw')">{{ $t('exam.drawIt') }}</button>
    </p>
    <p v-else class="caption">{{ measured }}</p>
    <div class="mt-2" role="radiogroup" :aria-label="$t('examine.gradeLong')">
      <span class="block">{{ $t('examine.gradeLong') }}</span>
      <div class="flex gap-1">
        <button
          v-for="g in 5"
          :key="g"
          type="button"
          role="radio"
          :aria-checked="finding.grade === g"
          class="act !px-0 w-12"
          :class="finding.grade === g ? '' : 'act-quiet'"
          @click="emit('change', { grade: g })"
        >
          {{ g }}
        </button>
      </div>
    </div>
    <div class="mt-3" role="radiogroup" :aria-label="$t('examine.wish')">
      <span class="block">{{ $t('examine.wish') }}</span>
      <div class="flex flex-wrap gap-1">
        <button
          v-for="w in WISHES"
          :key="w"
          type="button"
          role="radio"
          :aria-checked="finding.wish === w"
          class="act"
          :class="finding.wish === w ? '' : 'act-quiet'"
          @click="emit('change', { wish: w })"
        >
          {{ $t(`wish.${w}`) }}
        </button>
      </div>
    </div>
    <form
      v-if="finding.place.shape === 'line' || finding.place.shape === 'point'"
      class="flex gap-2 items-end mt-3"
      @submit.prevent="sized"
    >
      <label class="grow"
        >{{ finding.place.shape === 'line' ? $t('exam.gap') : $t('exam.across') }} ({{ session.shop?.length_unit }})
        <input v-model="width" class="field" inputmode="decimal" /></label
      ><button class="act act-quiet">{{ $t('save') }}</button>
    </form>
    <form class="flex gap-2 items-end mt-3" @submit.prevent="emit('change', { note })">
      <label class="grow">{{ $t('exam.note') }} <input v-model="note" class="field" maxlength="500" /></label
      ><button class="act act-quiet">{{ $t('save') }}</button>
    </form>
    <fieldset v-if="exam.photographs.length" class="mt-3">
      <legend>{{ $t('exam.shownOn') }}</legend>
      <div class="flex flex-wrap gap-2 mt-1">
        <button
          v-for="p in exam.photographs"
          :key="p.address"
          type="button"
          class="border-4"
          :class="finding.photographs.includes(p.address) ? 'border-verdigris' : 'border-transparent'"
          :aria-pressed="finding.photographs.includes(p.address)"
          :aria-label="p.caption || $t('examine.photograph')"
          @click="toggle(p.address)"
        >
          <img :src="`/api/photographs/${p.address}?size=thumb`" class="h-16" alt="" />
        </button>
      </div>
    </fieldset>
    <div class="flex flex-wrap gap-2 mt-4">
      <button
        v-if="!['face', 'unplaced'].includes(finding.place.shape)"
        class="act act-quiet"
        :aria-pressed="moving"
        @click="emit('move')"
      >
        {{ moving ? $t('cancel') : $t('exam.move') }}</button><button
        v-if="finding.place.shape !== 'unplaced'"
        class="act act-quiet"
        @click="emit('draw')"
      >
        {{ $t('exam.drawAnew') }}</button
      ><button class="act act-quiet" @click="emit('withdraw')">{{ $t('takeBack') }}</button>
    </div>
  </section>
</template>
