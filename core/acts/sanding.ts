/** Abrasion: scuff, level, sand, pad, between coats, back to the filler; and raising the grain before it. */
import { isCoarser, P } from '../abrasives'
import { sumOf } from '../units'
import {
  type Act,
  always,
  ANY_GROUND,
  AS_IT_WAS,
  NO_CAUTION,
  NO_NOTES,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
  SETUP_MIN,
} from './act'
import { sandRows } from './sandRows'
import type { Step, StepKind } from './step'
import type { Surface } from './surface'
import { fixed, H } from './wait'
import { gritsSaid } from './words'

const DUST = { ...NOTHING_MADE, dust: true, noise: true }
const byHand = (step: Pick<Step, 'method'>) => (step.method === 'wet' ? ', wet' : ' by hand')
/** A film that was cut for the next coat. */
const keyed = (s: Surface, step: Step): Surface => ({
  ...s,
  scuffed: true,
  dusty: true,
  grit: step.grits.at(-1) ?? s.grit,
})
/** Bare wood under the paper: raised fibres are gone. */
const cut = (s: Surface, step: Step): Surface => ({
  ...s,
  grit: step.grits.at(-1) ?? s.grit,
  dusty: true,
  grain: s.grain === 'raised' ? 'cut' : s.grain,
  steelWool: s.steelWool || step.method === 'steel-wool',
})
/** Water from the paper is gone before anything goes on: sooner from a film than from wood (common practice). */
const afterWet = (step: Step, next: Step) => {
  if (step.method !== 'wet' || next.method === 'wet' || next.kind === 'raise-grain' || next.kind === 'finish-up')
    return null
  const onWood = ['sand', 'pad', 'sand-back'].includes(step.kind)
  return onWood
    ? fixed('dry', H, 2 * H, 4 * H, 'the wetted wood dries')
    : fixed('dry', H / 2, H, 2 * H, 'the water from wet sanding dries')
}
/** What every abrasion has in common. */
const ABRASION = {
  needs: null,
  usesUp: false,
  does: ['abrades'],
  ground: ANY_GROUND,
  then: afterWet,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
} as const

const scuff: Act = {
  ...ABRASION,
  called: 'scuff',
  pace: perM2(8),
  methods: ['hand', 'finishing-sander', 'wet'],
  makes: { ...DUST, wears: true },
  leaves: keyed,
  fields: ['grits', 'on'],
  says: step => {
    const what = step.fields.on === 'sealer' ? 'Scuff the sealer' : 'Scuff'
    const how = step.fields.on === 'sealer' && step.method !== 'wet' ? '' : byHand(step)
    return `${what} ${gritsSaid(step.grits)}${how}`
  },
}

const level: Act = {
  ...ABRASION,
  called: 'level the old film',
  does: ['abrades', 'smooths'],
  pace: perM2(25),
  methods: ['wet', 'hand'],
  makes: { ...DUST, noise: false, water: true, wears: true },
  leaves: (s, step) => ({
    ...s,
    scuffed: true,
    grit: step.grits.at(-1) ?? s.grit,
    films: s.films.map((f, i) => (i === s.films.length - 1 ? { ...f, dry_um: f.dry_um * 0.7 } : f)),
  }),
  fields: ['grits', 'where'],
  says: step => {
    const what = step.fields.where === 'spots' ? 'down' : 'the old film level,'
    return `${step.method === 'wet' ? 'Wet-sand' : 'Sand'} ${what} ${gritsSaid(step.grits, ' then ')}`
  },
}

const sand: Act = {
  ...ABRASION,
  called: 'sand',
  pace: (step, faces, { facts }, place) =>
    SETUP_MIN + sumOf(sandRows(step, faces, place, facts.pace.sanding), r => r.minutes) * step.passes,
  methods: ['random-orbit', 'finishing-sander', 'hand', 'belt', 'wet'],
  makes: { ...DUST, wears: true },
  leaves: cut,
  rounds: { with: [], worst: 2, passes: 'No scratch of the grit before in raking light.' },
  fields: ['grits', 'after', 'where'],
  notes: always(
    'Stay off mouldings, veneer edges and coated arrises: they cut through first.',
    'Paler wood or a glue line under the paper means stop.',
  ),
  says: step => {
    const grits = gritsSaid(step.grits)
    if (step.fields.after === 'bleach') return `Sand lightly ${grits}${byHand(step)}`
    return step.fields.after === 'water' ? `Cut back ${grits}${byHand(step)}` : `Sand ${grits}`
  },
}

const pad: Act = {
  ...ABRASION,
  called: 'rub with a pad',
  pace: perM2(8),
  methods: ['hand', 'wet'],
  makes: { ...DUST, noise: false, wears: true },
  leaves: cut,
  fields: ['grits', 'after', 'where'],
  says: step => {
    const after = { bleach: ', lightly: the treated layer is thin', water: ': only the raised fibres' }
    const how = step.fields.after ? after[step.fields.after] : ''
    return `Rub with a ${step.method === 'wet' ? 'wet ' : ''}non-woven pad${how}`
  },
}

const sandCoat: Act = {
  ...ABRASION,
  called: 'sand between coats',
  does: ['abrades', 'smooths'],
  pace: perM2(6),
  methods: ['hand', 'finishing-sander', 'wet'],
  makes: DUST,
  leaves: keyed,
  fields: ['grits'],
  notes: always(
    'A few light strokes with the grain; edges left alone.',
    'White dust: it is dry. Gum on the paper: wait.',
  ),
  says: step => `Sand lightly ${gritsSaid(step.grits)}${step.method === 'wet' ? ' wet,' : ''} and wipe`,
}

const sandBack: Act = {
  ...ABRASION,
  called: 'sand back',
  pace: perM2(25),
  methods: ['hand', 'wet'],
  makes: DUST,
  leaves: cut,
  fields: ['grits'],
  says: step => `Sand back ${gritsSaid(step.grits)}${byHand(step)}`,
}

const raiseGrain: Act = {
  ...ABRASION,
  called: 'raise grain',
  does: ['floods'],
  pace: perM2(4),
  methods: ['rag', 'hand'],
  makes: { ...NOTHING_MADE, water: true },
  leaves: s => ({ ...s, grain: 'raised' }),
  then: () => fixed('dry', H, 2 * H, 4 * H, 'the wetted wood dries'),
  fields: [],
  notes: always(
    'Edges too; wipe at once.',
    'Look along it while wet: scratches across, arcs, pale glue, old finish, the undertone. Mark what shows.',
  ),
  says: () => 'Raise the grain: wet evenly, wipe, let dry',
}

/** What takes ridges down, beside scratches. */
const levels = ({ grits }: Pick<Step, 'grits'>) => grits.some(g => !isCoarser(P(1200), g))

const rubOut: Act = {
  ...ABRASION,
  called: 'rub out',
  does: ['abrades', 'smooths'],
  pace: perM2(40),
  methods: ['wet', 'hand'],
  makes: { ...DUST, noise: false, water: true },
  leaves: AS_IT_WAS,
  fields: ['grits', 'where', 'sheen'],
  notes: always(
    'Shiny spots are the low ones; stop at the first sign of colour. P1200 is about CAMI 600.',
    'With the grain; water is wiped off, never left standing. Compare halves in raking light.',
  ),
  says: step =>
    step.fields.where === 'spots'
      ? `Level there only, ${gritsSaid(step.grits)}, and bring the sheen back`
      : `${levels(step) ? 'Level' : 'Rub'} ${gritsSaid(step.grits)}${levels(step) ? ' and rub out' : ''}` +
        (step.fields.sheen ? ` to ${step.fields.sheen}` : ''),
}

const where = ({ fields }: Pick<Step, 'fields'>) => (fields.where === 'spots' ? 'there only, ' : '')
/** Cutting compound after the finest paper, to gloss. */
const buff: Act = {
  ...ABRASION,
  called: 'buff',
  does: ['smooths'],
  pace: perM2(15),
  methods: ['random-orbit', 'hand'],
  makes: { ...NOTHING_MADE, noise: true },
  leaves: AS_IT_WAS,
  fields: ['where'],
  notes: always(
    'Compound without silicone: fish eyes come from it for years. Keep the pad moving; heat softens the film.',
    'A scratch that stays belongs to the grit that was cut short: back to it, all over or just there, and through.',
  ),
  says: step => `Buff ${where(step)}with compound until reflections are sharp, and wipe off`,
}

export const SANDING_ACTS = {
  'scuff': scuff,
  'level': level,
  'sand': sand,
  'pad': pad,
  'sand-coat': sandCoat,
  'rub-out': rubOut,
  'buff': buff,
  'raise-grain': raiseGrain,
  'sand-back': sandBack,
} satisfies Partial<Record<StepKind, Act>>
