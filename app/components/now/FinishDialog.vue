<script setup lang="ts">
import type { RouteSlug } from '#core/piece'
import { type Fields, HALVES, type Measured, MEASURES } from '#core/acts'
import type { Used } from './UsedLots.vue'
import type { ActTarget, StepLine } from '~/composables/bench'

/** The end of a step: how a gate went, and what was used from which lot. */
const props = defineProps<{
  step: ActTarget & {
    product?: string | null
    productId?: number | null
    amount_ml?: number | null
    gate?: { look: string; fails: string; fallback: RouteSlug | null } | null
    passTest?: string | null
    on?: readonly { id: number; name: string }[]
    measures?: StepLine['measures']
    seen?: StepLine['seen']
    key?: string
    recipe?: string | null
    pieceId: number
  }
  ago: number
}>()
const emit = defineEmits<{ close: [] }>()
const gate = ref<'pass' | 'fail' | null>(null)
const uses = ref<Used[]>([])
const lots = useTemplateRef('lots')
/** A gate that failed: what was seen, and its picture. */
const seen = ref('')
const picture = ref<File | null>(null)
/** What showed, where the step asks for it; none: nothing of that, or what its fallback is for. */
const showed = ref<StepLine['seen'][number] | 'none'>()
const unsaid = computed(() => gate.value === 'fail' && Boolean(props.step.seen?.length) && !showed.value)
/** What was measured; the gun's set-up begins as it was for the coat before. */
const measured = ref<Measured>({
  ...props.step.measures?.before,
  ...(props.step.measures?.gunBefore ? { gun: props.step.measures.gunBefore } : {}),
})
/** What was measured now; figures from before alone are no measurement. */
const said = computed(() => {
  const { thickness_mm, hollow_mm } = measured.value
  const before: Record<string, unknown> =
    thickness_mm == null && hollow_mm == null ? { ...props.step.measures?.before } : {}
  const fresh = Object.entries(measured.value).filter(([what, x]) => x !== null && x !== '' && x !== before[what])
  return Object.fromEntries(fresh) as Measured
})
const busy = ref(false)
/** Faces on which the round did not pass; null: it passed. */
const again = ref<number[] | null>(null)
const strength = ref<Fields['strength'] | null>(null)
async function done() {
  busy.value = true
  if (picture.value && gate.value === 'fail') {
    const added = await addStepPicture(props.step, picture.value)
    if (added) picture.value = null
    else {
      busy.value = false
      return
    }
  }
  if (
    await actAtBench('finish', props.step, props.ago, {
      gate: gate.value,
      note: gate.value === 'fail' ? seen.value : '',
      seen: gate.value === 'pass' || showed.value === 'none' ? null : (showed.value ?? null),
      used: lots.value?.taken ?? [],
      measured: said.value,
      again: again.value ?? [],
      ...(again.value && strength.value ? { strength: strength.value } : {}),
    })
  )
    emit('close')
  busy.value = false
}
</script>

<template>
  <DialogBox :title="step.title" @close="emit('close')">
    <fieldset v-if="step.gate" class="mt-4">
      <legend>{{ step.gate.look }}</legend>
      <div class="grid grid-cols-2 gap-3 mt-3">
        <button
          class="act"
          :class="gate === 'pass' ? '' : 'act-quiet'"
          :aria-pressed="gate === 'pass'"
          @click="gate = 'pass'"
        >
          {{ w('bench.pass') }}
        </button>
        <button
          class="act"
          :class="gate === 'fail' ? '!bg-madder !border-madder' : 'act-stop'"
          :aria-pressed="gate === 'fail'"
          @click="gate = 'fail'"
        >
          {{ w('bench.fail') }}
        </button>
      </div>
      <p class="caption mt-2">{{ w('bench.failsWhen') }} {{ step.gate.fails }}</p>
      <div v-if="gate === 'fail'" class="grid gap-3 mt-3" data-test="failed">
        <RadioField
          v-if="step.seen?.length"
          v-model="showed"
          :label="w('bench.showed')"
          :options="[
            ...optionsOf(step.seen, x => w(`bench.shows.${x}`)),
            { value: 'none', label: w(step.gate.fallback ? 'bench.shows.worse' : 'bench.shows.other') },
          ]"
        />
        <p v-if="showed === 'none' || !step.seen?.length" class="verdict verdict-stop">
          {{
            step.gate.fallback ? w('bench.thenOver', { route: w(`route.${step.gate.fallback}`) }) : w('bench.thenAgain')
          }}
        </p>
        <label>{{ w('bench.seen') }} <input v-model="seen" class="field" maxlength="500" data-test="seen" /></label>
        <PictureField v-if="step.pieceId" v-model="picture" :label="w('bench.picture')" />
      </div>
    </fieldset>
    <SwitchField
      v-if="step.seen?.includes('orange')"
      class="mt-4"
      :model-value="showed === 'orange'"
      :label="w('bench.shows.orange')"
      @update:model-value="showed = $event ? 'orange' : 'none'"
    />
    <UsedLots v-if="step.product" ref="lots" v-model="uses" :step="step" />
    <FoldOut
      v-if="step.measures && (step.measures.numbers.length || step.measures.gun || step.measures.halves)"
      class="mt-4"
      :title="w('bench.measured')"
    >
      <div class="grid grid-cols-2 gap-3" data-test="measures">
        <NumberField
          v-for="m in step.measures.numbers"
          :key="m"
          v-model="measured[m]"
          :label="w(`measure.${m}`)"
          :min="MEASURES[m].least"
          :max="MEASURES[m].most"
          step="any"
        />
        <label v-if="step.measures.gun" class="col-span-2"
          >{{ w('measure.gun') }}
          <input v-model="measured.gun" class="field" maxlength="200" :placeholder="w('measure.gunSays')"
        /></label>
      </div>
      <RadioField
        v-if="step.measures.halves"
        v-model="measured.halves"
        class="mt-3"
        :label="w('measure.halves')"
        :options="optionsOf(HALVES, x => w(`measure.${x}`))"
      />
    </FoldOut>
    <RoundChoice
      v-if="step.passTest && step.on?.length"
      v-model:again="again"
      v-model:strength="strength"
      :pass-test="step.passTest"
      :on="step.on"
      :step-key="step.key"
      :piece-id="step.pieceId"
    />
    <div class="mt-6 flex gap-3">
      <button
        class="act"
        :disabled="
          busy ||
          (step.gate != null && gate === null) ||
          (gate === 'fail' && !seen.trim()) ||
          unsaid ||
          lots?.unsaid ||
          again?.length === 0
        "
        @click="done"
      >
        {{ w('bench.finish') }}
      </button>
      <button class="act act-quiet" @click="emit('close')">{{ w('cancel') }}</button>
    </div>
  </DialogBox>
</template>
