<script setup lang="ts">
import { isWooden, SUBSTRATES } from '#core/piece'
import { SHAPES } from '#core/units'
import { SPECIES } from '#core/wood'

/** Parts and their faces, with sizes: typed at take-in or later. */
const parts = defineModel<PartDraft[]>({ required: true })
defineProps<{ errors: Record<string, string> }>()
const session = useSession()
const unit = computed(() => session.shop?.length_unit ?? 'mm')
const areaOf = (f: PartDraft['faces'][number]) => draftArea_m2(f, unit.value)
const areaSaid = (f: PartDraft['faces'][number]) => {
  const area = areaOf(f)
  return area === null ? '–' : `${area.toFixed(3)} m²`
}
const total = computed(() =>
  parts.value.flatMap(p => (p.scope === 'refinish' ? p.faces : [])).reduce((sum, f) => sum + (areaOf(f) ?? 0), 0),
)
</script>

<template>
  <div>
    <section v-for="(part, i) in parts" :key="i" class="row mt-4">
      <div class="grid sm:grid-cols-[1fr_16rem_auto] gap-4 items-end">
        <TextField v-model="part.name" :label="w('intake.part')" :error="errors[`parts.${i}.name`]" required />
        <ChoiceField
          v-model="part.scope"
          :label="w('intake.scope')"
          :options="optionsOf(['refinish', 'protect', 'match'], v => w(`scope.${v}`))"
        />
        <button v-if="parts.length > 1" type="button" class="act act-quiet" @click="parts.splice(i, 1)">
          {{ w('remove') }}
        </button>
      </div>
      <div
        v-for="(face, j) in part.faces"
        :key="j"
        class="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-3 mt-4 pl-4 border-l-2 border-line"
      >
        <TextField
          v-model="face.name"
          :label="w('intake.face')"
          :error="errors[`parts.${i}.faces.${j}.name`]"
          required
        />
        <ChoiceField
          v-model="face.shape"
          :label="w('intake.shape')"
          :options="optionsOf(SHAPES, v => w(`shape.${v}`))"
        />
        <SizeField
          v-model="face.length"
          :label="`${w('intake.length')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.length`]"
          required
        />
        <SizeField
          v-model="face.width"
          :label="`${face.shape === 'turned' ? w('intake.diameter') : w('intake.width')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.width`]"
          required
        />
        <NumberField
          v-model="face.count"
          :label="w('intake.count')"
          :min="1"
          :error="errors[`parts.${i}.faces.${j}.count`]"
        />
        <p class="self-end pb-2">
          <span class="caption block">{{ w('intake.area') }}</span><strong class="clock text-lg" data-test="area">{{
            areaSaid(face)
          }}</strong>
        </p>
        <FindField
          v-if="isWooden(face.substrate)"
          v-model="face.species"
          :label="w('intake.species')"
          :options="namedOptions(SPECIES)"
        />
        <ChoiceField
          v-model="face.substrate"
          :label="w('intake.substrate')"
          :options="optionsOf(SUBSTRATES, x => w(`substrate.${x}`))"
        />
        <SizeField
          v-if="face.substrate === 'veneer'"
          v-model="face.veneer"
          :label="`${w('intake.veneer')} (${unit})`"
          :error="errors[`parts.${i}.faces.${j}.veneer`]"
        />
        <ChoiceField
          v-model="face.orientation"
          :label="w('intake.orientation')"
          :options="[
            { value: 'horizontal', label: w('orientation.horizontal') },
            { value: 'vertical', label: w('orientation.vertical') },
          ]"
        />
        <ChoiceField
          v-model="face.rank"
          :label="w('intake.rank')"
          :options="optionsOf(['show', 'secondary', 'hidden'], v => w(`rank.${v}`))"
        />
        <button
          v-if="part.faces.length > 1"
          type="button"
          class="act act-quiet self-end"
          @click="part.faces.splice(j, 1)"
        >
          {{ w('remove') }}
        </button>
      </div>
      <button type="button" class="act act-quiet mt-4" @click="part.faces.push(blankFace())">
        {{ w('intake.addFace') }}
      </button>
    </section>
    <div class="row flex flex-wrap items-center gap-4 mt-4">
      <button type="button" class="act act-quiet" @click="parts.push(blankPart())">
        {{ w('intake.addPart') }}
      </button>
      <span
        >{{ w('intake.total') }} <strong class="clock">{{ total.toFixed(3) }} m²</strong></span
      >
    </div>
  </div>
</template>
