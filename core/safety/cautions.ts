/** Cautions that go with the work, and the three classes of verdict. */

/**
 * forbidden: lifted only by recorded evidence. stop: who has the right may overrule with a word. warn: whoever works
 * on it may.
 */
export type Severity = 'forbidden' | 'stop' | 'warn' | 'note'

/** Does a verdict hold the work up? A word lifts a stop; only evidence lifts what is forbidden. */
export const blocks = ({ severity }: { severity: Severity }, overruled = false): boolean =>
  severity === 'forbidden' || (severity === 'stop' && !overruled)

/** May a word overrule a verdict of this class? `may`: what somebody has the right to; nobody lifts `forbidden`. */
export const mayOverrule = (severity: Severity, may: { stops: boolean; warnings: boolean }): boolean => {
  if (severity === 'forbidden') return false
  return severity === 'stop' ? may.stops : may.warnings
}

const END = "Follow the product's safety data sheet, local codes and licensed practice."

const TEXT = {
  'solvent':
    'Solvent vapour: ventilate, organic-vapour cartridges and gloves; a dust mask is not a vapour mask. ' +
    'No flame, heater, pilot light or ordinary fan motor near it.',
  'oily-rags':
    'Rags with drying oil heat up by themselves: lay them flat outdoors or keep them under water in a ' +
    'closed metal can.',
  'dust': 'Dust: extraction and mask. Beech and oak dust count as carcinogens in many rules.',
  'lead':
    'Old paint or varnish may hold lead: no dry sanding, no heat gun. Wet methods, HEPA vacuum, clothes ' +
    'stay in the shop. Local rules decide.',
  'poison':
    'This surface may carry poison (see its hazards): no dry sanding, no brushing dry. Wet methods, HEPA ' +
    'vacuum, gloves.',
  'bleach': 'Bleach: gloves, goggles, open vessel, never closed, never with other chemicals.',
  'ammonia': 'Ammonia fumes: outdoors or strong extraction, cartridges for ammonia, goggles.',
  'isocyanate': 'Two-part urethane holds isocyanates: supplied air, licensed sprayers only, never in an ordinary room.',
  'sludge': 'Stripper sludge and rags are hazardous waste in most places: ask the local authority.',
  'spray': 'Spraying: extraction, cartridges, eye protection, no ignition source.',
  'noise': 'Noise: ear protection.',
  'hardener':
    'The hardener of a two-part hardwax oil may hold isocyanates: read its data sheet before mixing, gloves, fresh ' +
    'air, never sprayed.',
  'methylene-chloride':
    'Methylene chloride kills in closed rooms and is banned for most uses in many places: only where the law allows ' +
    'it, by licensed people, with supplied air.',
  'skin': 'Gloves and goggles; wash skin at once.',
  'one-room':
    'Dust and finish share this room: no machine, heater or pilot light runs while solvent vapour stands, and ' +
    'nothing is sanded while a coat is wet.',
} as const

export type Caution = keyof typeof TEXT
/** The caution's words; every one ends with where to turn. */
export const cautionText = (caution: Caution): string => `${TEXT[caution]} ${END}`
