<script setup lang="ts">
import { explainLadder, type Grit, gritName, gritsFrom } from '#core/abrasives'
import { gritsToTry, sandRows, WHOLE } from '#core/acts'
import { type Choice, waysOf } from '#core/build'
import type { Context } from '#core/context'
import { sandPlaces } from '#core/plan'

/** A sanding step grit by grit: machine, area, minutes; what could be left out; what to try first. */
const props = defineProps<{
  step: PlanPage['steps'][number]
  context: Context
  choice: Choice
  steps: PlanPage['steps']
  can: boolean
}>()
const emit = defineEmits<{ grits: [grits: Grit[]] }>()
const { hours } = useFormat()
const faces = computed(() => props.context.facts.faces.filter(f => props.step.faces.includes(f.id)))
const place = computed(
  () =>
    sandPlaces(
      props.steps.filter(s => s.state !== 'skipped'),
      props.context,
      props.choice,
    ).get(props.step.key) ?? WHOLE,
)
const rows = computed(() => sandRows(props.step, faces.value, place.value, props.context.facts.pace.sanding))
/** too wide a step is a verdict of its own; here is what could be left out */
const spare = computed(() => explainLadder(props.step.grits, {}).filter(r => r.spare))
const sandedOff = computed(() =>
  waysOf(props.context, props.choice).some(
    way => way.buildUp.ground === 'strip-mechanical' && way.facts.faces.some(f => props.step.faces.includes(f.id)),
  ),
)
const tries = computed(() => gritsToTry(props.step.grits, place.value, sandedOff.value))
</script>

<template>
  <section class="grid gap-2" data-test="sanding">
    <table class="w-full text-left clock">
      <thead class="caption">
        <tr>
          <th class="font-normal">{{ w('sanding.grit') }}</th>
          <th class="font-normal">{{ w('sanding.how') }}</th>
          <th class="font-normal text-right">m²</th>
          <th class="font-normal text-right">{{ w('sanding.time') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="gritName(r.grit) + r.machine" class="border-t border-line">
          <td class="py-1">{{ gritName(r.grit) }}</td>
          <td>{{ w(`method.${r.machine}`) }}</td>
          <td class="text-right">{{ r.area_m2.toFixed(2) }}</td>
          <td class="text-right">{{ hours(r.minutes) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="r in spare" :key="gritName(r.grit)" class="caption">
      {{ w('sanding.spare', { grit: gritName(r.grit) }) }}
    </p>
    <div v-if="can && tries.length > 1" class="flex flex-wrap items-center gap-2">
      <span>{{ w('sanding.try') }}</span><button
        v-for="g in tries"
        :key="gritName(g)"
        type="button"
        class="act act-quiet"
        @click="emit('grits', gritsFrom(step.grits, g))"
      >
        {{ w('sanding.works', { grit: gritName(g) }) }}
      </button>
    </div>
  </section>
</template>
