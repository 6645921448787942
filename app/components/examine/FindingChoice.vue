<script setup lang="ts">
import { FINDING_KINDS, type FindingKind, type PlaceShape } from '#core/piece'

/** What a new finding is, how it is drawn and how grave; one that covers its face is placed by a button. */
defineProps<{
  kind: FindingKind | null
  shape: PlaceShape | null
  /** its kind and grade are known, and only its place is wanted */
  known: boolean
  /** which of its copies is shown; 0: there is one only */
  copy: number
  of: number
}>()
const emit = defineEmits<{
  kind: [kind: FindingKind]
  shape: [shape: (typeof SHAPES)[number]]
  whole: [copy: number]
  letGo: []
}>()
const grade = defineModel<number>('grade', { required: true })
const USUAL: FindingKind[] = [
  'scratches',
  'dents',
  'white-ring',
  'black-ring',
  'crazing',
  'peeling',
  'worn-through',
  'crack',
  'veneer-chipped',
]
const SHAPES = ['point', 'line', 'area', 'face'] as const
</script>

<template>
  <div>
    <h2>{{ kind && known ? w('exam.nowDraw', { kind: w(`finding.${kind}`) }) : w('exam.whatIsIt') }}</h2>
    <template v-if="!known">
      <div class="flex flex-wrap gap-2 mt-2">
        <button
          v-for="k in USUAL"
          :key="k"
          class="act"
          :class="kind === k ? '' : 'act-quiet'"
          :aria-pressed="kind === k"
          @click="emit('kind', k)"
        >
          {{ w(`finding.${k}`) }}
        </button>
      </div>
      <ChoiceField
        :model-value="kind && !USUAL.includes(kind) ? kind : ''"
        :label="w('exam.otherKind')"
        label-hidden
        :options="[
          { value: '', label: w('exam.otherKind') },
          ...optionsOf(
            FINDING_KINDS.filter(x => !USUAL.includes(x)),
            k => w(`finding.${k}`),
          ),
        ]"
        class="mt-2"
        @update:model-value="$event && emit('kind', $event)"
      />
    </template>
    <template v-if="kind">
      <RadioField
        class="mt-3"
        :model-value="shape ?? undefined"
        :label="w('exam.as')"
        :options="optionsOf(SHAPES, x => w(`exam.shape.${x}`))"
        @update:model-value="$event && $event !== 'unplaced' && emit('shape', $event)"
      />
      <RadioField
        v-if="!known"
        v-model="grade"
        class="mt-3"
        tight
        :label="w('examine.gradeLong')"
        :options="optionsOf([1, 2, 3, 4, 5])"
      />
      <p v-if="shape === 'face'" class="flex flex-wrap gap-2 mt-3">
        <button class="act" @click="emit('whole', copy)">
          {{ copy ? w('exam.onCopy', { n: copy, of }) : w('exam.onWhole') }}
        </button>
        <button v-if="copy" class="act act-quiet" @click="emit('whole', 0)">{{ w('exam.onAll', { n: of }) }}</button>
      </p>
      <button class="act act-quiet mt-3" @click="emit('letGo')">{{ w('cancel') }}</button>
    </template>
  </div>
</template>
