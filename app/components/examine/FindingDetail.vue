<script setup lang="ts">
import { SIGN_OF_FINDING } from '#core/diagnose'
import { WISHES } from '#core/piece'
import { parseLength_mm } from '#core/units'

/** The chosen finding: grade, wish, size, note, photographs; move it, or take it back. */
const props = defineProps<{ finding: ExamFinding; exam: Examination; moving: boolean }>()
const emit = defineEmits<{
  change: [next: Record<string, unknown>]
  withdraw: []
  move: []
  close: []
  draw: []
  face: [id: number]
}>()
const session = useSession()
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
  if (mm === null) return useNotes().show(w('exam.badLength'), 'stop')
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
        <span class="clock">{{ finding.number }}</span> · {{ w(`finding.${finding.kind}`) }}
      </h2>
      <button class="act act-quiet" @click="emit('close')">{{ w('close') }}</button>
    </div>
    <ChoiceField
      v-if="exam.faces.length > 1"
      :model-value="finding.faceId"
      :label="w('exam.onFace')"
      :options="exam.faces.map(f => ({ value: f.id, label: `${f.part}, ${f.name}` }))"
      class="mt-2"
      @update:model-value="emit('face', $event)"
    />
    <p v-if="finding.place.shape === 'unplaced'" class="verdict mt-1">
      {{ w('exam.notDrawn') }} <button class="act mt-2" @click="emit('draw')">{{ w('exam.drawIt') }}</button>
    </p>
    <p v-else class="caption">{{ measured }}</p>
    <RadioField
      class="mt-2"
      tight
      :model-value="finding.grade"
      :label="w('examine.gradeLong')"
      :options="optionsOf([1, 2, 3, 4, 5])"
      @update:model-value="emit('change', { grade: $event })"
    />
    <RadioField
      class="mt-3"
      :model-value="finding.wish"
      :label="w('examine.wish')"
      :options="optionsOf(WISHES, wish => w(`wish.${wish}`))"
      @update:model-value="emit('change', { wish: $event })"
    />
    <form
      v-if="finding.place.shape === 'line' || finding.place.shape === 'point'"
      class="flex gap-2 items-end mt-3"
      @submit.prevent="sized"
    >
      <label class="grow"
        >{{ finding.place.shape === 'line' ? w('exam.gap') : w('exam.across') }} ({{ session.shop?.length_unit }})
        <input v-model="width" class="field" inputmode="decimal" /></label
      ><button class="act act-quiet">{{ w('save') }}</button>
    </form>
    <form class="flex gap-2 items-end mt-3" @submit.prevent="emit('change', { note })">
      <label class="grow">{{ w('exam.note') }} <input v-model="note" class="field" maxlength="500" /></label
      ><button class="act act-quiet">{{ w('save') }}</button>
    </form>
    <fieldset v-if="exam.photographs.length" class="mt-3">
      <legend>{{ w('exam.shownOn') }}</legend>
      <div class="flex flex-wrap gap-2 mt-1">
        <button
          v-for="p in exam.photographs"
          :key="p.address"
          type="button"
          class="border-4"
          :class="finding.photographs.includes(p.address) ? 'border-verdigris' : 'border-transparent'"
          :aria-pressed="finding.photographs.includes(p.address)"
          :aria-label="p.caption || w('examine.photograph')"
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
        {{ moving ? w('cancel') : w('exam.move') }}</button><button
        v-if="finding.place.shape !== 'unplaced'"
        class="act act-quiet"
        @click="emit('draw')"
      >
        {{ w('exam.drawAnew') }}</button
      ><button class="act act-quiet" @click="emit('withdraw')">{{ w('takeBack') }}</button>
      <NuxtLink
        v-if="SIGN_OF_FINDING[finding.kind]"
        class="act act-quiet no-underline"
        :to="`/pieces/${$route.params.id}/faults?sign=${SIGN_OF_FINDING[finding.kind]}`"
        >{{ w('fault.why') }}</NuxtLink
      >
    </div>
  </section>
</template>
