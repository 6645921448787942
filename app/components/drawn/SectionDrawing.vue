<script setup lang="ts">
import { cutOf, spread, type SurfaceDrawn } from '#core/section'
import { runsOf, sumOf } from '#core/units'

/** The section of a plan: wood below, found left, planned right, to the stated scale. A layer opens its step. */
const props = defineProps<{ section: SurfaceDrawn; label: string }>()
const emit = defineEmits<{ open: [step: string] }>()
const BOX = { width: 250, height: 330, found: 90, states: true }
/** Room for a label beside the section, and how many letters fit into it. */
const LABEL_PX = 340
const LETTERS = 38
const fitted = (name: string, rest: string) =>
  name.length + rest.length > LETTERS ? `${name.slice(0, LETTERS - rest.length - 1)}…${rest}` : name + rest
const cut = computed(() => cutOf(props.section, BOX))
const labels = computed(() => {
  const films = runsOf(cut.value.planned, b => `${b.film.name} ${b.film.state}`).map(run => {
    const times = run.length > 1 ? ` ×${run.length}` : ''
    const top = run.at(-1)!
    const um = sumOf(run, b => b.film.um)
    return { at: (run[0]!.y + run[0]!.h + top.y) / 2, says: fitted(top.film.name, `${times} · ${round(um)} µm`) }
  })
  const colour = props.section.colours.at(-1)
  const inWood = { at: cut.value.woodTop + 18, says: fitted(colour?.name ?? '', `, ${w('section.inWood')}`) }
  return spread(colour ? [...films, inWood] : films, 22)
})
const round = (um: number) => Math.round(um * 10) / 10
/** "oak; found: oil varnish, 80 µm" */
const foundSays = computed(() => {
  const { species, found, foundGone } = props.section
  const top = found[0]
  return top
    ? `${species}; ${w(foundGone ? 'section.was' : 'section.found')} ${top.name}, ${round(top.um)} µm`
    : species
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${BOX.width + LABEL_PX} ${BOX.height + 32}`"
    class="w-full max-w-xl block"
    role="group"
    :aria-label="label"
    data-test="section"
    :data-px-per-um="cut.pxPerUm"
  >
    <DrawnShapes :shapes="cut.shapes" keys @touch="$event.step && emit('open', $event.step)" />
    <text v-for="l in labels" :key="l.at" :x="BOX.width + 14" :y="l.at" font-size="17" fill="var(--color-ink)">
      {{ l.says }}
    </text>
    <text x="0" :y="BOX.height + 22" font-size="17" fill="var(--color-ink)">{{ foundSays }}</text>
  </svg>
</template>
