/** Gluing what is loose, pulling, pressing, steaming, paring, filling: mending what was found. */
import { type Act, always, NO_WAIT, NOTHING_MADE, perM2, PLAIN } from './act'
import type { Step, StepKind } from './step'
import { D, fixed, H } from './wait'
import { placesSaid } from './words'

const gluedWith = (step: Step): string => (step.fields.glue ? ` with ${step.fields.glue.replace('-', ' ')}` : '')

const HINGE = 'loose-hinge'
const hinged = (step: Step) => (step.fields.repairs ?? []).filter(r => r.kind === HINGE)

const joint: Act = {
  ...PLAIN,
  called: 'glue joints',
  pace: perM2(0),
  does: ['mends'],
  then: () => fixed('harden', 4 * H, 12 * H, D, 'glue stands clamped before the joint is worked on'),
  fields: ['repairs', 'glue'],
  notes: step => [
    'Old glue off to the wood first; dry fit before any glue.',
    ...(hinged(step).length ? ['Hinges: clean, plug stripped screw holes, refit; no glue in the knuckle.'] : []),
  ],
  says: step => {
    const glue = gluedWith(step)
    const glued = (step.fields.repairs ?? []).filter(r => r.kind !== HINGE)
    const hinges = hinged(step)
    if (glued.length === 0 && hinges.length === 0) return `Glue what is loose${glue}`
    const refit = hinges.length ? `${glued.length ? '; refit' : 'Refit'} ${placesSaid(hinges)}` : ''
    return (glued.length ? `Glue${glue}: ${placesSaid(glued)}` : '') + refit
  },
}

const FILLED = {
  'tinted': ', with tinted filler',
  'plain': ', with plain filler',
  'stretching': ', the moving crack with a stretching filler',
  'wood-strip': ', the moving crack with a strip of the same wood',
}

const mend: Act = {
  ...PLAIN,
  called: 'mend',
  pace: perM2(0),
  does: ['mends'],
  then: () => fixed('harden', H, 4 * H, D, 'filler and glue harden before they are cut flush'),
  fields: ['repairs', 'filler', 'glue'],
  says: step => {
    const filled = (step.fields.filler ? FILLED[step.fields.filler] : '') + gluedWith(step)
    return step.fields.repairs?.length
      ? `Mend: ${placesSaid(step.fields.repairs)}${filled}`
      : `Mend what was found${filled}`
  },
}

const found = (step: Step): string => (step.fields.repairs?.length ? `: ${placesSaid(step.fields.repairs)}` : '')

const pull: Act = {
  ...PLAIN,
  called: 'pull staples and nails',
  pace: perM2(0),
  does: ['mends'],
  then: NO_WAIT,
  fields: ['repairs'],
  notes: always('Both legs; one that breaks off is punched below the surface. A magnet along the edge finds the last.'),
  says: step => `Pull staples and nails${found(step)}`,
}

const press: Act = {
  ...PLAIN,
  called: 'press veneer down',
  pace: perM2(0),
  does: ['mends'],
  then: () => fixed('harden', 4 * H, 12 * H, D, 'the veneer stays under its block until the glue has set'),
  fields: ['repairs', 'glue'],
  notes: always(
    'Dust and old glue out from under it; hide glue that is there may take again under heat and damp.',
    'A blister is slit with the grain. Paper, then a warm flat block, then the clamp; glue that comes out off at once.',
  ),
  says: step => `Press the veneer down${gluedWith(step)}${found(step)}`,
}

const steam: Act = {
  ...PLAIN,
  called: 'steam dents',
  pace: perM2(0),
  does: ['mends'],
  makes: { ...NOTHING_MADE, water: true },
  then: () => fixed('dry', 2 * H, 4 * H, D, 'steamed wood dries before it is cut flush'),
  fields: ['repairs'],
  notes: always(
    'Only where fibres are bent and whole: a damp cloth and the iron, a few seconds, again. Cut fibres are filled.',
    'Little heat on veneer: it loosens old glue.',
  ),
  says: step => `Steam dents out${found(step)}`,
}

const pare: Act = {
  ...PLAIN,
  called: 'pare glue off',
  pace: perM2(0),
  does: ['mends'],
  makes: { ...NOTHING_MADE, wears: true },
  then: NO_WAIT,
  fields: ['repairs'],
  notes: always(
    'A sharp chisel or scraper, flat; wet the place to see what is left. Glue in the pores takes no colour.',
  ),
  says: step => `Pare glue off${found(step)}`,
}

export const REPAIRS_ACTS = {
  joint: joint,
  mend: mend,
  pull: pull,
  press: press,
  steam: steam,
  pare: pare,
} satisfies Partial<Record<StepKind, Act>>
