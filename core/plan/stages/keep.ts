/** Stages that keep the old film: wash, scuff, level, let flow, repair spots. */
import { type Grit, P, STOP_P, type StopFor, TO_GLOSS } from '../../abrasives'
import type { Surface } from '../../acts'
import {
  type Facts,
  type Finding,
  type FindingKind,
  findingsOf,
  IN_THE_FILM,
  MELTS,
  POLISHED_OUT,
  RELIEF,
  STRIPPING,
  underWax,
} from '../../piece'
import { round } from '../../units'
import { chanceOfFailing } from '../chances'
import { type Bench, cleanOff, dry, facesWith, mend, onSpots, polished } from './bench'
import { ironOut } from './marks'

/** Washes until wax that is the finish itself is off (shop default). */
const WAX_PASSES = 3
export function wash(b: Bench, start: Surface) {
  const why = 'grease, wax and polish come off before any abrasion, or the paper drives them in'
  if (b.s.dirty) b.put(100, 'wash', why, { product: 'mild-soap', method: 'rag' })
  if (!start.waxed) return
  const onlyWax = start.films.length > 0 && start.films.every(f => f.slug === 'wax')
  const comesOff = onlyWax && STRIPPING.includes(b.buildUp.ground)
  b.put(105, 'solvent-wash', comesOff ? 'until a white rag stays clean: wax is all there is' : 'nothing holds on wax', {
    product: 'white-spirit',
    method: 'rag',
    ...(comesOff ? { passes: WAX_PASSES } : {}),
    fields: { against: 'wax' },
  })
}

export function washContamination(b: Bench, order: number) {
  if (b.s.contamination !== 'untreated' && b.s.contamination !== 'washed') return
  const why = 'water beaded here: silicone, wax or oil comes back as fish eyes'
  b.put(order, 'solvent-wash', why, {
    product: 'white-spirit',
    method: 'rag',
    passes: 2,
    fields: { against: 'contamination' },
  })
  b.put(order + 1, 'gate', 'stripping does not prove contamination gone', {
    gate: {
      slug: 'wetting-test',
      look: 'Wet the surface and look along it in raking light.',
      fails: 'Water still beads or pools in patches.',
      fallback: null,
      chance: 0.3,
    },
  })
}

export function scuff(b: Bench) {
  washContamination(b, 110)
  const use: StopFor = b.layers.some(l => l.act === 'gel') ? 'gel-over-film' : 'recoat-film'
  mend(b, 140, 'mend', 'mended before the film is scuffed; what carries finish takes epoxy, not wood glue')
  ringsOut(b)
  onSpots(b, 146, 'level', ['runs'], 'a run stands through every new coat', { grits: [P(320), P(400)], method: 'wet' })
  b.put(150, 'scuff', STOP_P[use].why, { grits: [P(STOP_P[use].take)], method: dry(b, 'hand') })
  cleanOff(b, 160)
}

export function level(b: Bench) {
  washContamination(b, 110)
  mend(b, 140, 'mend', 'mended before the film is levelled')
  b.put(150, 'level', 'drips, brush marks and orange peel go before the barrier', {
    grits: [P(320), P(400)],
    method: 'wet',
  })
  b.put(160, 'clean-off', 'slurry under a sealer shows', { method: 'rag', fields: { dustBy: 'after-wet' } })
  for (const coat of [1, 2])
    b.put(170 + coat, 'coat', 'keeps what is below from what comes above', {
      product: 'dewaxed-shellac',
      method: 'brush',
      coat,
      fields: { as: 'barrier', of: 2 },
    })
  b.put(175, 'gate', 'halos and stains show only now', {
    gate: {
      slug: 'sealer-judged',
      look: 'Raking light, whole top: halos, dark stains coming up, orange peel coming back.',
      fails: 'Halos, dark stains or orange peel show in the sealer.',
      fallback: 'strip-chemical',
      chance: chanceOfFailing(b.buildUp, b.facts),
    },
  })
  b.put(176, 'scuff', 'grip for the next coat', { grits: [P(320)], method: dry(b, 'hand'), fields: { on: 'sealer' } })
  cleanOff(b, 177)
}

/** Marks that lie in the oil, and go with it. */
const IN_THE_OIL: readonly FindingKind[] = ['white-ring', 'black-ring', 'heat-mark', 'scratches', 'worn-through']
/** An oiled or waxed surface gets a thin coat of its own kind, on what was washed and rubbed. */
export function renew(b: Bench) {
  mend(b, 140, 'mend', 'small mends before the new coat')
  const oil = b.layers.find(l => l.act === 'oil-on')
  if (!oil) return
  const marked = findingsOf({ ...b.facts, faces: b.group.faces }, ...IN_THE_OIL).some(f => f.grade >= 3)
  const open = oil.product === 'hardwax-oil-2c'
  const last = P(open ? STOP_P.hardwax.max : STOP_P['varnish-oil'].take)
  const by = { method: dry(b, 'hand') }
  if (marked)
    onSpots(b, 150, 'sand', IN_THE_OIL, 'the marked places through the grits, with soft edges', {
      ...by,
      grits: [P(open ? 150 : 180), last],
    })
  ironOut(b, 152)
  b.put(156, 'pad', 'the whole face once, so that the new oil takes evenly', { ...by, grits: [last] })
  cleanOff(b, 160)
}

/** The grit that each grade of mark begins with: the mildest that takes it. */
const POLISH_FROM: readonly Grit[][] = [
  [],
  [],
  [{ scale: 'foam', grade: '3000' }],
  [
    { scale: 'CAMI', grade: '1500' },
    { scale: 'foam', grade: '3000' },
  ],
  TO_GLOSS,
  TO_GLOSS,
]
const cutBy = (marks: readonly Finding[]): Grit[] =>
  marks.some(f => RELIEF.includes(f.kind)) ? TO_GLOSS : (POLISH_FROM[marks[0]?.grade ?? 1] ?? [])
const WOOL: Grit = { scale: 'wool', grade: '0000' }
const isGlossy = ({ sheen }: Facts) => sheen === 'gloss' || sheen === 'semi-gloss'
const WHY_BUFF = 'haze goes, and what was cut short shows'
/** A sound film is cut level where it is marked, and brought to its sheen. */
export function polish(b: Bench) {
  const grits = cutBy(findingsOf({ ...b.facts, faces: b.group.faces }, ...POLISHED_OUT))
  const wet = { method: 'wet', fields: { sheen: b.facts.sheen } } as const
  if (grits.length)
    b.put(150, 'rub-out', 'the mildest grit that takes the marks, and through the finer ones', { ...wet, grits })
  if (isGlossy(b.facts)) b.put(160, 'buff', WHY_BUFF)
  else b.put(160, 'rub-out', 'an even sheen, with the grain', { ...wet, grits: [WOOL] })
  polished(b, 165, 'scuff')
}

/** A ring in a film that melts is let flow together where it is. */
export function ringsOut(b: Bench) {
  const film = underWax(b.facts, b.group)?.finish ?? ''
  if (!MELTS.includes(film)) return
  const lacquer = film === 'nitrocellulose-lacquer'
  onSpots(b, 145, 'amalgamate', IN_THE_FILM, 'a ring in the film closes when the film melts', {
    product: lacquer ? 'lacquer-thinner' : 'alcohol',
    method: lacquer ? 'spray' : 'rag',
    passes: 2,
  })
}

/** A film that its own solvent melts is let flow together again. */
export function amalgamate(b: Bench) {
  const shellac = underWax(b.facts, b.group)?.finish === 'shellac'
  b.put(150, 'amalgamate', 'crazing, dullness and rings close when the film melts into itself', {
    product: shellac ? 'alcohol' : 'lacquer-thinner',
    method: shellac ? 'rag' : 'spray',
    passes: 2,
  })
  b.put(160, 'gate', 'only the dry film tells', {
    gate: {
      slug: 'film-flowed',
      look: 'Raking light on the hard film.',
      fails: 'Cracks, rings or dull patches still show.',
      fallback: 'strip-chemical',
      chance: chanceOfFailing(b.buildUp, b.facts),
    },
  })
}

const SPOT_COATS = 3
/** Marks that lie in the film, and are cut out of it. */
const CUT_OUT: readonly FindingKind[] = POLISHED_OUT.filter(k => !IN_THE_FILM.includes(k))
/** Marks that want colour and local coats of their own. */
const TO_THE_WOOD: readonly FindingKind[] = ['worn-through', 'sanded-through', 'veneer-chipped', 'black-ring']
/** Each mark where it is: let flow, cut out, or built up anew, and brought to the sheen of what lies around it. */
export function spotRepair(b: Bench) {
  mend(b, 140, 'mend', 'chips are filled before their colour')
  const lacquer = underWax(b.facts, b.group)?.finish === 'nitrocellulose-lacquer'
  const glossy = isGlossy(b.facts)
  const rubbed = (order: number, kinds: readonly FindingKind[], cut: Grit[], why: string) => {
    const toSheen = [...cut.filter(g => g.scale === 'P'), WOOL]
    onSpots(b, order, 'rub-out', kinds, why, { method: 'wet', grits: glossy ? cut : toSheen })
  }
  ringsOut(b)
  const cut = cutBy(findingsOf({ ...b.facts, faces: b.group.faces }, ...CUT_OUT).filter(f => f.wish === 'mend'))
  if (cut.length || !glossy) rubbed(145.5, CUT_OUT, cut, 'the mildest grit that takes the marks, there only')
  if (facesWith(b, ...TO_THE_WOOD).length) {
    builtUp(b, lacquer ? 'nitrocellulose-lacquer' : 'dewaxed-shellac')
    rubbed(170, TO_THE_WOOD, TO_GLOSS, 'after a week; look again for sink-back before delivery')
  }
  const marked = [...TO_THE_WOOD, ...CUT_OUT]
  if (!glossy || facesWith(b, ...marked).length === 0) return
  onSpots(b, 172, 'buff', marked, WHY_BUFF)
  polished(b, 175, null, facesWith(b, ...marked))
}
/** Marks that reach the wood: cleaned, coloured, and coated by what melts into the film around them. */
function builtUp(b: Bench, coats: 'nitrocellulose-lacquer' | 'dewaxed-shellac') {
  onSpots(b, 146, 'sand', ['black-ring'], 'the film off over the ring, with soft edges', {
    grits: [P(220)],
    method: dry(b, 'hand'),
  })
  ironOut(b, 147)
  onSpots(b, 149.5, 'solvent-wash', ['worn-through'], 'grease keeps colour and coat off', {
    product: 'naphtha',
    method: 'rag',
    fields: { against: 'grease' },
  })
  onSpots(b, 150, 'spot-colour', TO_THE_WOOD, 'colour first, or the film over it shows the wood', {
    product: 'dewaxed-shellac',
    method: 'brush',
  })
  for (let coat = 1; coat <= SPOT_COATS; coat++)
    onSpots(b, 160 + coat, 'spot-coat', TO_THE_WOOD, 'it melts into the film around it', {
      product: coats,
      method: 'brush',
      coat,
      fields: { of: SPOT_COATS },
    })
}

/** Wood too wet to finish is measured again before the first coat or colour. */
export function moistureGate(b: Bench, order: number) {
  const wet = b.facts.wet.filter(w => b.group.faces.some(f => f.id === w.faceId))
  if (wet.length === 0) return
  const most = round(Math.min(...wet.map(w => w.most_pct)), 1)
  const days = Math.ceil(Math.max(...wet.map(w => w.likely_d)))
  b.put(
    order,
    'gate',
    `about ${days === 1 ? 'a day' : `${days} days`} from the last reading until the wood is near equilibrium`,
    {
      fields: { most_pct: most },
      gate: {
        slug: 'moisture',
        look: 'Measure where it was measured before.',
        fails: `More than ${most} %: let it stand and measure again.`,
        fallback: null,
        chance: 0.2,
      },
    },
  )
}
