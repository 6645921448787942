<script setup lang="ts">
/** For developers alone: every drawn part and every part of the interface in its states. Not built for production. */
import type { Place } from '#core/piece'
import type { FilmDrawn, LayerState, SurfaceDrawn } from '#core/section'
import type { Window } from '#core/timetable'

const MIN = 60_000
const NOW = Date.UTC(2026, 2, 4, 10)
const SPAN = [NOW - 240 * MIN, NOW + 480 * MIN] as const
const window = (start: number, opens: number | null, closes: number | null): Window => ({
  from: 'a',
  to: 'b',
  kind: 'dry',
  why: 'shown',
  start_ms: NOW + start * MIN,
  opens_ms: opens === null ? null : NOW + opens * MIN,
  likely_ms: opens === null ? null : NOW + (opens + 20) * MIN,
  safe_ms: opens === null ? null : NOW + (opens + 60) * MIN,
  closes_ms: closes === null ? null : NOW + closes * MIN,
  hard: true,
})
const WINDOWS: [string, Window][] = [
  ['runs, nothing known of its end', window(-60, null, null)],
  ['must wait', window(-60, 120, null)],
  ['must wait, and closes', window(-60, 60, 300)],
  ['may be done', window(-200, -60, null)],
  ['may be done, closes later', window(-200, -60, 240)],
  ['closes within half an hour', window(-200, -60, 20)],
  ['too late', window(-230, -120, -30)],
]
const film = (slug: string, um: number, state: LayerState, step: string | null): FilmDrawn => ({
  ...{ slug, um, state, step, name: slug.replaceAll('-', ' '), layer: null, coloured: false },
})
const section = (state: LayerState): SurfaceDrawn => ({
  species: 'oak',
  tone: '#c9a36b',
  pores: 'open',
  found: [film('shellac', 60, 'found', null)],
  films: [film('dewaxed-shellac', 12, 'done', 'a'), film('waterborne-polyurethane', 75, state, 'b')],
  colours: [film('gel-stain', 0, state, 'c')],
  filler: null,
  filled: false,
  foundGone: false,
  raised: false,
  waxed: false,
  sheen: 'satin',
})
const STATES = ['planned', 'running', 'done', 'failing'] as const
const spectrum = (base: number, rise: number) => Array.from({ length: 31 }, (_, i) => base + (rise * i) / 30)
const PANEL = [
  ['bare', spectrum(0.25, 0.4), spectrum(0.24, 0.41), false],
  ['stained', spectrum(0.08, 0.25), null, false],
  ['under finish', null, spectrum(0.06, 0.2), true],
] as const
const panel = PANEL.map(([title, predicted, measured, approved], i) => ({
  key: title,
  title,
  now: i === 1,
  predicted,
  measured,
  why: 'no-recipe' as const,
  approved,
}))
const open = ref('')
const place: Place = { shape: 'area', copy: 1, x_mm: 120, y_mm: 60, x2_mm: 300, y2_mm: 180, size_mm: 0 }
const face = {
  id: 1,
  part: 'top',
  name: 'outside',
  shape: 'flat',
  length_mm: 900,
  width_mm: 450,
  copies: 1,
  length_typed: '900',
  width_typed: '450',
} as ExamFace
const finding = { id: 1, number: 1, faceId: 1, kind: 'scratches', grade: 2, place, photographs: [] } as never
const few = ref<'a' | 'b'>('a')
const many = ref(3)
const on = ref(true)
const date = ref<string | null>('2026-11-27')
const text = ref('as typed')
const number = ref<number | null>(12)
const asked = ref(false)
const tab = ref('one')
const notes = useNotes()
</script>

<template>
  <div class="grid gap-8">
    <h1>Workbench</h1>
    <section v-for="[name, it] in WINDOWS" :key="name" class="grid grid-cols-[16rem_1fr] gap-4">
      <span>{{ name }}</span><WindowBar :window="it" :span="SPAN" :now="NOW" :closing="NOW + 360 * MIN" :label="name" />
    </section>
    <section class="flex flex-wrap gap-8">
      <div v-for="s in STATES" :key="s" class="w-80">
        <h2>{{ s }}</h2>
        <SectionDrawing :section="section(s)" :label="s" />
      </div>
    </section>
    <section>
      <h2>Face board: nothing in hand, a kind in hand, one chosen</h2>
      <FaceBoard
        v-for="[kind, chosen] in [
          [null, null],
          ['scratches', null],
          [null, 1],
        ] as const"
        :key="`${kind}${chosen}`"
        :face="face"
        :copy="1"
        :findings="[finding]"
        :kind="kind"
        :shape="kind ? 'area' : null"
        :chosen="chosen"
        :moving="false"
        can
      />
    </section>
    <PanelStrip v-model="open" :states="panel" />
    <SwatchStrip
      :colours="[
        { name: 'foretold', spectrum: spectrum(0.08, 0.25) },
        { name: 'target', spectrum: spectrum(0.07, 0.27), note: 'a chair' },
      ]"
    />
    <section class="grid sm:grid-cols-3 gap-4">
      <ChoiceField v-model="few" label="One of a few" :options="optionsOf(['a', 'b'])" />
      <ChoiceField v-model="few" label="Refused" :options="optionsOf(['a', 'b'])" error="Choose another." />
      <ChoiceField v-model="few" label="Not now" :options="optionsOf(['a', 'b'])" disabled />
      <FindField v-model="many" label="One of many" :options="optionsOf(Array.from({ length: 200 }, (_, i) => i))" />
      <RadioField v-model="few" label="All in sight" :options="optionsOf(['a', 'b'])" />
      <SwitchField v-model="on" label="On or off" />
      <DateField v-model="date" label="A day" />
      <NumberField v-model="number" label="A number" error="Between 1 and 10." />
      <TextField v-model="text" label="A text" />
    </section>
    <FoldOut title="What is sometimes wanted"><p>It.</p></FoldOut>
    <WhyNote label="Where it comes from">From the label.</WhyNote>
    <ProgressLine label="Working" :done="0.4" />
    <TabRow
      v-model="tab"
      label="Parts"
      :tabs="[
        { name: 'one', label: 'One' },
        { name: 'two', label: 'Two' },
      ]"
      ><template #one>one</template><template #two>two</template></TabRow
    >
    <p class="flex gap-3">
      <button class="act" @click="asked = true">A dialog</button>
      <button class="act act-quiet" @click="notes.show('Done.', 'done', async () => notes.show('Taken back.'))">
        Done, with a way back
      </button>
      <button class="act act-stop" @click="notes.show('Refused.', 'stop')">Refused</button>
    </p>
    <DialogBox v-if="asked" title="Something to answer" @close="asked = false">
      <button class="act mt-4" @click="asked = false">Answered</button>
    </DialogBox>
  </div>
</template>
