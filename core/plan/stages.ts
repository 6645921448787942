/** The stages of the work on one group of faces: each is put in only where the state of the surface asks for it. */
import {
  ladder_P,
  LEFT_BY_SANDING_OFF_UM,
  LEFT_BY_STRIPPING_UM,
  STOP_P,
  type StopFor,
  veneerBudget,
  type VeneerBudget,
} from '../abrasives'
import { type Gate, isBare, leave, type Method, splitLadder, type StepKind, type Step, type Surface } from '../acts'
import { type Choice, type RouteSlug, STRIPPING } from '../build'
import { coatsForFilm } from '../coverage'
import { type House, USUAL_HOUSE } from '../house'
import { materialOf, type Material } from '../materials'
import { type Facts, type FindingKind, finishOn, type Group, leadSuspected, mendingOf, wetOnly } from '../piece'
import { round } from '../units'
import { speciesOf, veneerThickness } from '../wood'
import { chanceOfFailing } from './chances'

export interface Draft {
  order: number
  kind: StepKind
  title: string
  product?: string
  grits?: number[]
  method?: Method
  coat?: number
  passes?: number
  why: string
  gate?: Gate
}

/** One group at work: what is known, and the surface as the drafts so far leave it. */
interface Bench {
  facts: Facts
  choice: Choice
  house: House
  group: Group
  s: Surface
  lead: boolean
  put: (d: Draft) => void
}

export const isJoint = (kind: FindingKind): boolean => kind === 'loose-leg' || kind === 'open-joint'
const HARD_FILMS = ['oil-polyurethane', 'catalysed', 'waterborne']
const WATER_COLOURS = ['water-dye', 'paint-wash', 'ammonia']
const lastGrit = (grits: readonly number[]) => grits.at(-1)!
const gritOf = (option: string) => Number(option.slice(1))

/** What the bare wood is left for. */
export function stopFor(choice: Choice): StopFor {
  if (WATER_COLOURS.includes(choice.colour) || choice.colour === 'alcohol-dye') return 'dye'
  if (choice.colour === 'pigment-stain' || choice.colour === 'gel-stain') return 'stain'
  if (choice.finish === 'hardwax-oil-2c') return 'hardwax'
  return materialOf(choice.finish).role === 'oil' ? 'varnish-oil' : 'film'
}

/** Patina marked, or an old piece whose age is kept in a house that stops at 90–95 %. */
const gentle = (facts: Facts, house: House): boolean =>
  facts.keepPatina ||
  (house['old-surface'] === 'patina' && facts.age === 'keep' && ['before-1850', '1850-1925'].includes(facts.period))

/** The dry ladder for bare wood of this group, P scale. Patina: nothing coarser than P180. */
export function bareLadder(facts: Facts, group: Group, choice: Choice): number[] {
  const house = choice.house ?? USUAL_HOUSE
  const use = stopFor(choice)
  const usualStop = use === 'stain' ? gritOf(house['stop-under-stain']) : STOP_P[use].take
  const stop = choice.finish === 'hardwax-oil-2c' && use === 'dye' ? STOP_P.hardwax.max : usualStop
  const firstOnSolid = choice.route === 'strip-both' ? 80 : 100
  const first = group.substrate === 'veneer' ? 120 : firstOnSolid
  return ladder_P(gentle(facts, house) ? 180 : first, stop).map(g => g.number)
}

/**
 * The veneer sum of a group under this choice; null where the wood is solid. Not measured: the thin end of what its
 * age used.
 */
export function budgetOf(facts: Facts, group: Group, choice: Choice): VeneerBudget | null {
  if (group.substrate !== 'veneer' || !STRIPPING.includes(choice.route) || wetOnly(facts)) return null
  const ladder = bareLadder(facts, group, choice).map(number => ({ scale: 'P' as const, number }))
  return veneerBudget({
    thickness_mm: veneerThickness(group.veneer_mm, facts.period).mm,
    ladder,
    left_um: choice.route === 'strip-mechanical' ? LEFT_BY_SANDING_OFF_UM : LEFT_BY_STRIPPING_UM,
  })
}

const dry = (b: Bench, machine: Method): Method =>
  b.lead && (b.s.films.some(f => f.found) || isBare(b.s)) ? 'wet' : machine
const dustWith = (b: Bench) =>
  ({
    'tack-cloth': 'Vacuum, then tack cloth, lightly',
    'damp-cloth': 'Vacuum, then a barely damp cloth',
    'air-only': 'Air and vacuum only',
  })[b.house.dust === 'tack-cloth' && materialOf(b.choice.finish).base === 'water' ? 'damp-cloth' : b.house.dust]
const cleanOff = (b: Bench, order: number, why = 'dust under a coat stays there') =>
  b.put({ order, kind: 'clean-off', title: dustWith(b), method: 'rag', why })

function wash(b: Bench, start: Surface) {
  if (b.s.dirty)
    b.put({
      order: 100,
      kind: 'wash',
      title: 'Wash with mild soap and water',
      product: 'mild-soap',
      method: 'rag',
      why: 'grease, wax and polish come off before any abrasion, or the paper drives them in',
    })
  if (start.waxed)
    b.put({
      order: 105,
      kind: 'solvent-wash',
      title: 'Take wax off with white spirit',
      product: 'white-spirit',
      method: 'rag',
      why: 'nothing holds on wax',
    })
}

function washContamination(b: Bench, order: number) {
  if (b.s.contamination !== 'untreated' && b.s.contamination !== 'washed') return
  b.put({
    order,
    kind: 'solvent-wash',
    title: 'Solvent wash against contamination',
    product: 'white-spirit',
    method: 'rag',
    passes: 2,
    why: 'water beaded here: silicone, wax or oil comes back as fish eyes',
  })
  b.put({
    order: order + 1,
    kind: 'gate',
    title: 'Wetting test: does water spread evenly?',
    why: 'stripping does not prove contamination gone',
    gate: {
      slug: 'wetting-test',
      look: 'Wet the surface and look along it in raking light.',
      fails: 'Water still beads or pools in patches.',
      fallback: null,
      chance: 0.3,
    },
  })
}

function mend(b: Bench, order: number, why: string) {
  const kinds = mendingOf({ ...b.facts, faces: b.group.faces }).map(m => m.kind)
  if (kinds.some(k => !isJoint(k))) b.put({ order, kind: 'mend', title: 'Mend what was found', method: 'hand', why })
}

function scuff(b: Bench) {
  washContamination(b, 110)
  const use: StopFor = b.choice.colour === 'gel-stain' ? 'gel-over-film' : 'recoat-film'
  mend(b, 140, 'mended before the film is scuffed; what carries finish takes epoxy, not wood glue')
  b.put({
    order: 150,
    kind: 'scuff',
    title: `Scuff P${STOP_P[use].take}${b.lead ? ', wet' : ' by hand'}`,
    grits: [STOP_P[use].take],
    method: dry(b, 'hand'),
    why: STOP_P[use].why,
  })
  cleanOff(b, 160)
}

function level(b: Bench) {
  washContamination(b, 110)
  mend(b, 140, 'mended before the film is levelled')
  b.put({
    order: 150,
    kind: 'level',
    title: 'Wet-sand the old film level, P320 then P400',
    grits: [320, 400],
    method: 'wet',
    why: 'drips, brush marks and orange peel go before the barrier',
  })
  b.put({
    order: 160,
    kind: 'clean-off',
    title: 'Clean and let the water go',
    method: 'rag',
    why: 'slurry under a sealer shows',
  })
  for (const coat of [1, 2])
    b.put({
      order: 170 + coat,
      kind: 'coat',
      title: `Dewaxed shellac barrier, coat ${coat} of 2`,
      product: 'dewaxed-shellac',
      method: 'brush',
      coat,
      why: 'keeps what is below from what comes above',
    })
  b.put({
    order: 175,
    kind: 'gate',
    title: 'Judge the sealer',
    why: 'halos and stains show only now',
    gate: {
      slug: 'sealer-judged',
      look: 'Raking light, whole top: halos, dark stains coming up, orange peel coming back.',
      fails: 'Halos, dark stains or orange peel show in the sealer.',
      fallback: 'strip-chemical',
      chance: chanceOfFailing(b.choice.route, b.facts),
    },
  })
  b.put({
    order: 176,
    kind: 'scuff',
    title: b.lead ? 'Scuff the sealer P320, wet' : 'Scuff the sealer P320',
    grits: [320],
    method: dry(b, 'hand'),
    why: 'grip for the next coat',
  })
  cleanOff(b, 177)
}

/** A film that its own solvent melts is let flow together again. */
function amalgamate(b: Bench) {
  const shellac = finishOn(b.facts, b.group)[0]?.finish === 'shellac'
  b.put({
    order: 150,
    kind: 'amalgamate',
    title: shellac
      ? 'Let the old shellac flow with alcohol, pad after pad'
      : 'Mist lacquer thinner with retarder until the film flows',
    product: shellac ? 'alcohol' : 'lacquer-thinner',
    method: shellac ? 'rag' : 'spray',
    passes: 2,
    why: 'crazing, dullness and rings close when the film melts into itself',
  })
  b.put({
    order: 160,
    kind: 'gate',
    title: 'Has the film flowed together?',
    why: 'only the dry film tells',
    gate: {
      slug: 'film-flowed',
      look: 'Raking light on the hard film.',
      fails: 'Cracks, rings or dull patches still show.',
      fallback: 'strip-chemical',
      chance: chanceOfFailing(b.choice.route, b.facts),
    },
  })
}

const SPOT_COATS = 3
/** Colour back where it is gone, then local coats that melt in; levelled only there. */
function spotRepair(b: Bench) {
  mend(b, 140, 'chips are filled before their colour')
  b.put({
    order: 150,
    kind: 'spot-colour',
    title: 'Colour back: brush and shellac with dye',
    product: 'dewaxed-shellac',
    method: 'brush',
    why: 'colour first, or the film over it shows the wood',
  })
  for (let coat = 1; coat <= SPOT_COATS; coat++)
    b.put({
      order: 160 + coat,
      kind: 'spot-coat',
      title: `Local coat ${coat} of ${SPOT_COATS}, the last one full`,
      product:
        finishOn(b.facts, b.group)[0]?.finish === 'nitrocellulose-lacquer'
          ? 'nitrocellulose-lacquer'
          : 'dewaxed-shellac',
      method: 'brush',
      coat,
      why: 'it melts into the film around it',
    })
  b.put({
    order: 170,
    kind: 'rub-out',
    title: 'Level there only, P1200, and bring the sheen back',
    grits: [1200],
    method: 'wet',
    why: 'after a week; look again for sink-back before delivery',
  })
}

function strip(b: Bench) {
  const both = b.choice.route === 'strip-both'
  const coarse = b.facts.keepPatina ? 180 : 80
  if (!isBare(b.s)) {
    b.put({
      order: 120,
      kind: 'cover',
      title: 'Cover and tape, 6 mm in from the edges',
      method: 'none',
      why: 'nothing runs where it must not',
    })
    const hard = finishOn(b.facts, b.group).some(l => HARD_FILMS.includes(l.finish))
    if (!b.lead && (hard || (both && b.house.first === 'sand')))
      b.put({
        order: 125,
        kind: 'roughen',
        title: both && b.house.first === 'sand' ? `Sand the film thin P${coarse}` : `Roughen the hard film P${coarse}`,
        grits: [coarse],
        method: both && b.house.first === 'sand' ? 'random-orbit' : 'hand',
        why: 'lets the stripper in',
      })
    b.put({
      order: 130,
      kind: 'strip',
      title: 'Stripper on, thick and even',
      product: 'solvent-gel-stripper',
      method: 'brush',
      why: 'works as long as it is wet',
    })
    b.put({
      order: 135,
      kind: 'scrape',
      title: 'Scrape off',
      method: 'hand',
      why: 'low angle, rounded corners, no burr',
    })
    b.put({
      order: 140,
      kind: 'wash-off',
      title:
        `Wash off${b.house['abrade-with'] === 'steel-wool' ? ' with steel wool' : ''}, ` +
        'three times and once more clean',
      product: 'white-spirit',
      method: b.house['abrade-with'] === 'steel-wool' && !bringsWater(b) ? 'steel-wool' : 'rag',
      passes: 3,
      why: 'residue in corners stops the next film from drying',
    })
  }
  washContamination(b, 145)
}

function sandOff(b: Bench) {
  const dryTitle = b.facts.keepPatina
    ? 'Scrape the film off with a card scraper, no paper coarser than P180'
    : 'Scrape and sand the film off, P80'
  if (!isBare(b.s))
    b.put({
      order: 130,
      kind: 'sand-off',
      title: b.lead ? 'Scrape the film off wet' : dryTitle,
      grits: [b.facts.keepPatina ? 180 : 80],
      method: b.lead ? 'wet' : 'random-orbit',
      why: 'a thin or brittle film on flat solid wood comes off under the scraper',
    })
  washContamination(b, 145)
}

/** Whether any later step brings water to the bare wood. */
const bringsWater = ({ choice, house }: Pick<Bench, 'choice' | 'house'>) =>
  WATER_COLOURS.includes(choice.colour) ||
  (choice.bleach ?? 'none') !== 'none' ||
  choice.fill === 'waterborne-filler' ||
  materialOf(choice.finish).base === 'water' ||
  house['raise-grain'] === 'always'

const PROUD = 'left a little proud, and cut flush by the grits that follow'

function sandBare(b: Bench) {
  const { facts, group, choice, house } = b
  const budget = budgetOf(facts, group, choice)
  const shaped = group.faces.every(f => f.shape === 'turned' || f.shape === 'carved')
  const grits = bareLadder(facts, group, choice)
  const mends = STRIPPING.includes(choice.route)
  if (b.lead || budget?.verdict === 'do-not-sand' || (gentle(facts, house) && shaped)) {
    if (mends) mend(b, 190, PROUD)
    const thin = budget?.verdict === 'do-not-sand'
    const spared = thin ? 'the veneer has nothing to spare for paper' : 'the patina stays'
    b.put({
      order: 200,
      kind: 'pad',
      title: b.lead ? 'Rub with a wet non-woven pad' : 'Rub with a non-woven pad',
      grits: [lastGrit(grits)],
      method: b.lead ? 'wet' : 'hand',
      why: b.lead ? `${leadSuspected(facts.lead) ? 'lead' : 'a hazard'} is not ruled out: no dry sanding` : spared,
    })
    return
  }
  const byHand = group.substrate === 'veneer' || group.faces.every(f => f.shape !== 'flat')
  const orbit = house['orbit-on-tops'] === 'yes' || group.faces.every(f => f.rank !== 'show')
  const machine = orbit ? 'random-orbit' : 'finishing-sander'
  const method = byHand ? 'hand' : machine
  const sand = (order: number, its: readonly number[], why: string) =>
    b.put({ order, kind: 'sand', title: `Sand ${its.map(g => `P${g}`).join(' → ')}`, grits: [...its], method, why })
  const fills = mends && mendingOf({ ...facts, faces: group.faces }).some(m => !isJoint(m.kind))
  const [coarse, fine] = fills ? splitLadder(grits) : [[], grits]
  if (coarse.length) sand(185, coarse, 'the coarse grits first, fills after them')
  if (mends) mend(b, 190, PROUD)
  sand(200, fine, `stop at P${lastGrit(grits)}: ${STOP_P[stopFor(choice)].why}`)
}

function bleach(b: Bench) {
  const product = b.choice.bleach ?? 'none'
  if (product === 'none') return
  const grits = [lastGrit(bareLadder(b.facts, b.group, b.choice))]
  b.put({
    order: 210,
    kind: 'bleach',
    title:
      product === 'two-part-bleach'
        ? 'Bleach, A and B 1:1 in an open vessel, twice over; leave overnight'
        : 'Oxalic acid on the stains',
    product,
    method: 'brush',
    passes: product === 'two-part-bleach' ? 2 : 1,
    why:
      product === 'two-part-bleach'
        ? 'a stain cannot go lighter than the wood; it gets darker before it gets lighter'
        : 'takes out iron and water stains',
  })
  b.put({
    order: 211,
    kind: 'rinse',
    title: 'Rinse or neutralise as the kit says, buckets of water',
    method: 'rag',
    why: 'what stays in the wood eats the next film',
  })
  b.put({
    order: 212,
    kind: b.lead ? 'pad' : 'sand',
    title: `Sand lightly P${grits[0]} by hand`,
    grits,
    method: b.lead ? 'wet' : 'hand',
    why: 'the treated layer is thin, edges cut through',
  })
}

function raiseGrain(b: Bench) {
  const { house, choice } = b
  const water =
    WATER_COLOURS.includes(choice.colour) ||
    (choice.colour === 'none' && materialOf(choice.finish).base === 'water') ||
    choice.fill === 'waterborne-filler'
  const wanted = house['raise-grain'] === 'always' || (house['raise-grain'] === 'when-water' && water)
  if (!wanted || b.s.grain !== 'as-is') return
  const grits = [lastGrit(bareLadder(b.facts, b.group, choice))]
  b.put({
    order: 220,
    kind: 'raise-grain',
    title: 'Raise the grain: wet evenly, wipe, let dry',
    method: 'rag',
    why: 'water that comes later will then raise little',
  })
  b.put({
    order: 222,
    kind: b.lead ? 'pad' : 'sand',
    title: `Cut back P${grits[0]} by hand`,
    grits,
    method: b.lead ? 'wet' : 'hand',
    why: 'the raised fibres, and nothing else',
  })
}

/** A thin sealer: vinyl, or dewaxed shellac where contamination wants its barrier first. */
const sealWith = (b: Bench) =>
  b.s.contamination === 'washed'
    ? { product: 'dewaxed-shellac', title: 'Dewaxed shellac' }
    : { product: 'vinyl-sealer', title: 'Vinyl sealer' }

/** The filler wanted on open pores under a film; an oiled or waxed surface is left natural. */
function fillProduct(b: Bench): string | null {
  const product = b.choice.fill ?? 'none'
  return product !== 'none' &&
    speciesOf(b.group.species).pores === 'open' &&
    materialOf(b.choice.finish).role === 'film'
    ? product
    : null
}

const WIPED_ACROSS = 'across the grain with burlap, then very lightly with it'
function fill(b: Bench, order: number) {
  const product = fillProduct(b)
  if (!product) return
  const oil = product === 'paste-filler'
  const rounds = materialOf(product).coats[0]
  for (let round = 1; round <= rounds; round++) {
    const at = order + (round - 1) * 6
    b.put({
      order: at,
      kind: 'fill',
      title: oil
        ? 'Paste filler, heavy cream, across the grain'
        : `Grain filler, ${round === 1 ? 'pudding' : 'pancake batter'}, trowelled across`,
      product,
      method: 'hand',
      coat: round,
      why: 'the pores of open wood show pits under a film',
    })
    b.put({
      order: at + 1,
      kind: 'fill-off',
      title: oil
        ? `Wipe ${b.house['fill-wipe'] === 'across' ? WIPED_ACROSS : 'with the grain'}`
        : 'Scrape off with a steep blade',
      product,
      method: 'rag',
      coat: round,
      why: oil ? 'when it hazes; left longer it sets like stone' : 'no cloudiness may stay',
    })
    b.put({
      order: at + 2,
      kind: 'sand-back',
      title: `Sand back ${oil ? 'P320' : 'P220'} by hand`,
      grits: [oil ? 320 : 220],
      method: b.lead ? 'wet' : 'hand',
      coat: round,
      why: 'filler on the surface greys the finish',
    })
  }
  cleanOff(b, order + 14)
}

function colour(b: Bench) {
  const { choice, group, house } = b
  const blotches = speciesOf(group.species).blotches
  switch (choice.colour) {
    case 'pigment-stain': {
      const auto =
        house.conditioner === 'always' || (house.conditioner === 'where-blotchy' && blotches) ? 'oil-conditioner' : null
      const chosen = choice.conditioner === 'none' ? null : choice.conditioner
      const wanted = chosen === 'auto' ? auto : chosen
      if (wanted)
        b.put({
          order: 300,
          kind: 'conditioner',
          title: 'Conditioner on, wipe after 5 to 15 min',
          product: wanted,
          method: 'rag',
          coat: 1,
          why: `${speciesOf(group.species).name} takes stain in patches`,
        })
      b.put({
        order: 310,
        kind: 'stain',
        title: 'Stain on and wipe',
        product: 'pigment-stain',
        method: 'rag',
        coat: 1,
        why: "the client's colour",
      })
      break
    }
    case 'gel-stain':
      b.put({
        order: 310,
        kind: 'gel',
        title: 'Gel stain on, 3 min, wipe with the grain',
        product: 'gel-stain',
        method: 'rag',
        coat: 1,
        why: 'hides scratches and goes darker',
      })
      break
    case 'water-dye':
    case 'alcohol-dye': {
      const coats = materialOf(choice.colour).coats[0]
      for (let coat = 1; coat <= coats; coat++)
        b.put({
          order: 310 + coat,
          kind: 'dye',
          title: `Dye, light pass ${coat} of ${coats}`,
          product: choice.colour,
          method: 'spray',
          coat,
          why: 'weak and many: saturating makes colours separate',
        })
      break
    }
    case 'ammonia':
      b.put({
        order: 310,
        kind: 'dye',
        title: 'Dilute ammonia, judge dry, again a little stronger',
        product: 'ammonia',
        method: 'brush',
        coat: 1,
        why: "darkens the wood's own tannin",
      })
      break
    case 'paint-wash':
      b.put({
        order: 310,
        kind: 'paint-wash',
        title: 'Paint wash on, wipe to the wanted paleness',
        product: 'paint-wash',
        method: 'rag',
        coat: 1,
        why: 'paler, cooler, kills orange',
      })
      break
    case 'glaze': {
      // a glaze lies between coats; routes say so where the finish is none
      if (materialOf(choice.finish).role !== 'film') break
      b.put({
        order: 450,
        kind: 'coat',
        title: 'Dewaxed shellac under the glaze',
        product: 'dewaxed-shellac',
        method: 'brush',
        coat: 1,
        why: 'the glaze is wiped on a sealed surface, and stays in the recesses',
      })
      b.put({
        order: 460,
        kind: 'glaze',
        title: 'Glaze on, wipe the heights, leave the recesses',
        product: 'glaze',
        method: 'rag',
        coat: 1,
        why: 'darker in the recesses, as age makes it',
      })
      if (materialOf(choice.finish).base !== 'alcohol')
        b.put({
          order: 465,
          kind: 'coat',
          title: 'Dewaxed shellac over the dry glaze',
          product: 'dewaxed-shellac',
          method: 'brush',
          coat: 1,
          why: 'holds the oil glaze away from the next film',
        })
      break
    }
    case 'lacquer-toner': {
      // a toner lies in a film; routes say so where the finish is none
      if (materialOf(choice.finish).role !== 'film') break
      b.put({
        order: 450,
        kind: 'coat',
        title: `${sealWith(b).title} under the toner`,
        product: sealWith(b).product,
        method: 'spray',
        coat: 1,
        why: 'colour lies in the film, not in the wood',
      })
      const coats = materialOf('lacquer-toner').coats[0]
      for (let coat = 1; coat <= coats; coat++)
        b.put({
          order: 460 + coat,
          kind: 'toner',
          title: `Toner, mist ${coat} of ${coats}`,
          product: 'lacquer-toner',
          method: 'spray',
          coat,
          why: 'three to five light coats, from a distance',
        })
      break
    }
  }
}

/** Wood too wet to finish is measured again before the first coat or colour. */
function moistureGate(b: Bench, order: number) {
  const wet = b.facts.wet.filter(w => b.group.faces.some(f => f.id === w.faceId))
  if (wet.length === 0) return
  const most = round(Math.min(...wet.map(w => w.most_pct)), 1)
  b.put({
    order,
    kind: 'gate',
    title: `Moisture: ${most} % at the most`,
    why:
      `about ${Math.ceil(Math.max(...wet.map(w => w.likely_d)))} days from the last reading until the wood is ` +
      'near equilibrium',
    gate: {
      slug: 'moisture',
      look: 'Measure where it was measured before.',
      fails: `More than ${most} %: let it stand and measure again.`,
      fallback: null,
      chance: 0.2,
    },
  })
}

/** Steps of one group in the order they are put; `order` sorts them among other groups'. */
export function stagesOf(facts: Facts, choice: Choice, group: Group, start: Surface): Draft[] {
  const drafts: Draft[] = []
  const b: Bench = {
    facts,
    choice,
    group,
    house: choice.house ?? USUAL_HOUSE,
    s: start,
    lead: wetOnly(facts),
    put: draft => {
      drafts.push(draft)
      b.s = leave(
        {
          ...draft,
          key: `${draft.kind}-${drafts.length}`,
          faces: [],
          product: draft.product ?? null,
          grits: draft.grits ?? [],
        } as unknown as Step,
        b.s,
      )
    },
  }
  if (choice.route === 'refer') {
    b.put({
      order: 150,
      kind: 'refer',
      title: 'Hand over to a conservator or a licensed firm, with the condition report',
      method: 'none',
      why: 'museum quality, a rare original finish or a suspected toxic coating',
    })
    return drafts
  }
  wash(b, start)
  if (mendingOf({ ...facts, faces: group.faces }).some(m => isJoint(m.kind)))
    b.put({
      order: 112,
      kind: 'joint',
      title: 'Glue what is loose',
      why: 'what is loose is made fast before anything is stripped or sanded',
    })
  if (!STRIPPING.includes(choice.route)) moistureGate(b, 114)
  switch (choice.route) {
    case 'clean-and-wax': {
      mend(b, 140, 'small mends before the wax')
      b.put({
        order: 800,
        kind: 'wax',
        title: 'Wax thin, let haze, buff',
        product: 'paste-wax',
        method: 'rag',
        coat: 1,
        why: 'the film is sound, and the client likes its colour',
      })
      return drafts
    }
    case 'amalgamate':
      washContamination(b, 110)
      amalgamate(b)
      break
    case 'spot-repair':
      washContamination(b, 110)
      spotRepair(b)
      return drafts
    case 'scuff-and-recoat':
    case 'scuff-and-gel':
      scuff(b)
      break
    case 'level-barrier-recoat':
      level(b)
      break
    case 'strip-chemical':
    case 'strip-both':
      strip(b)
      break
    case 'strip-mechanical':
      sandOff(b)
      break
  }
  if (isBare(b.s)) {
    sandBare(b)
    bleach(b)
    raiseGrain(b)
    cleanOff(b, 225, 'dust in the pores greys the finish')
    if (b.house['fill-when'] === 'fill-stain') fill(b, 240)
  }
  if (STRIPPING.includes(choice.route)) moistureGate(b, 290)
  if (choice.route !== 'amalgamate') colour(b)
  if (isBare(b.s) && fillProduct(b) && b.house['fill-when'] !== 'fill-stain') {
    b.put({
      order: 336,
      kind: 'coat',
      title: `${sealWith(b).title} before the filler`,
      product: sealWith(b).product,
      method: 'spray',
      coat: 1,
      why:
        b.house['fill-when'] === 'stain-fill'
          ? 'keeps the paper off the colour when the filler is sanded back'
          : 'keeps filler colour out of the wood; wipes off easily',
    })
    fill(b, 340)
  }
  oilUnderShellac(b)
  if (b.s.contamination === 'washed' && materialOf(choice.finish).role === 'film') {
    b.put({
      order: 400,
      kind: 'coat',
      title: 'Dewaxed shellac barrier against contamination',
      product: 'dewaxed-shellac',
      method: 'brush',
      coat: 1,
      why: 'a barrier between what was there and the topcoat',
    })
    b.put({
      order: 405,
      kind: 'gate',
      title: 'Fish eyes in the barrier?',
      why: 'a gate before the topcoat',
      gate: {
        slug: 'barrier-clear',
        look: 'Raking light on the dry barrier.',
        fails: 'Craters or fish eyes.',
        fallback: null,
        chance: 0.3,
      },
    })
  }
  finish(b)
  return drafts
}

function oilUnderShellac(b: Bench) {
  const oil = b.house['oil-under-shellac']
  if (
    oil === 'none' ||
    !isBare(b.s) ||
    b.choice.colour !== 'none' ||
    !['dewaxed-shellac', 'shellac-brushed'].includes(b.choice.finish)
  )
    return
  const product = oil === 'raw' ? 'raw-linseed' : 'boiled-linseed'
  b.put({
    order: 390,
    kind: 'oil-on',
    title: `${materialOf(product).name}, very thin`,
    product,
    method: 'rag',
    coat: 1,
    why: 'deepens the figure under shellac',
  })
  b.put({
    order: 392,
    kind: 'oil-off',
    title: 'Wipe all oil off',
    product,
    method: 'rag',
    coat: 1,
    why: 'what stays on floats up into the shellac',
  })
}

/** What a film under the topcoat needs between it and the wood. */
function sealer(b: Bench, m: Material) {
  const top = b.s.films.at(-1)
  const old = top?.found ?? false
  if (m.base === 'lacquer' && old && top && !['shellac', 'nitrocellulose-lacquer'].includes(top.slug))
    b.put({
      order: 480,
      kind: 'coat',
      title: 'Dewaxed shellac between the old film and the lacquer',
      product: 'dewaxed-shellac',
      method: 'brush',
      coat: 1,
      why: 'lacquer solvent wrinkles an oil film',
    })
  if (m.base === 'water' && b.choice.fill === 'paste-filler' && b.s.filler)
    b.put({
      order: 478,
      kind: 'coat',
      title: 'Dewaxed shellac over the filler',
      product: 'dewaxed-shellac',
      method: 'brush',
      coat: 1,
      why: 'oil filler under a waterborne coat wants three days, or shellac between',
    })
  if (m.traits.includes('catalysed') && isBare(b.s))
    b.put({
      order: 480,
      kind: 'coat',
      title: 'Vinyl sealer',
      product: 'vinyl-sealer',
      method: 'spray',
      coat: 1,
      why: "two-part films hold on vinyl or the maker's own sealer",
    })
}

/** Routes that lay a coat on an old film with nothing but a scuff between. */
const ON_OLD_FILM: readonly RouteSlug[] = ['scuff-and-recoat', 'scuff-and-gel']

function finish(b: Bench) {
  const { choice, facts, house } = b
  const m = materialOf(choice.finish)
  const gloss =
    choice.route !== 'amalgamate' &&
    choice.finish === 'nitrocellulose-lacquer' &&
    (facts.sheen === 'gloss' || (facts.sheen !== 'matt' && house['satin-by'] === 'rub'))
  if (m.role === 'wax') {
    for (let coat = 1; coat <= m.coats[1]; coat++)
      b.put({
        order: 500 + coat * 10,
        kind: 'wax',
        title: `Wax, coat ${coat} of ${m.coats[1]}, buffed`,
        product: m.slug,
        method: 'rag',
        coat,
        why: 'thin, hazed, buffed',
      })
    return
  }
  sealer(b, m)
  const usual = gloss ? m.coats[1] : m.coats[0]
  const wanted = choice.film_um && m.role === 'film' ? coatsForFilm(m, choice.film_um) : usual
  const coats = choice.route === 'amalgamate' ? Number(m.meltsIn) : wanted
  for (let coat = 1; coat <= coats; coat++) {
    const order = 500 + coat * 10
    if (m.role === 'oil') {
      b.put({
        order,
        kind: 'oil-on',
        title:
          `${m.name[0]!.toUpperCase()}${m.name.slice(1)} on, coat ${coat} of ` +
          `${coats}${m.slug === 'varnish-oil' ? '; feed thirsty spots at 10 to 15 min' : ''}`,
        product: m.slug,
        method: 'rag',
        coat,
        why:
          m.slug === 'hardwax-oil-2c' ? 'one coat: a second finds nothing to hold on' : 'keep it wet until it is wiped',
      })
      b.put({
        order: order + 5,
        kind: 'oil-off',
        title: `Wipe all oil off, coat ${coat} of ${coats}`,
        product: m.slug,
        method: 'rag',
        coat,
        why: 'what stays on goes sticky',
      })
      continue
    }
    const grit = m.betweenCoats_P === 320 ? gritOf(house['between-coats']) : m.betweenCoats_P
    const clear = b.s.openColour === null
    const dye = b.s.inWood.findLast(w => w.role === 'dye')
    const bleeds = coat === 1 && isBare(b.s) && dye?.base === m.base
    if (coat > 1 && grit && clear)
      b.put({
        order: order - 5,
        kind: 'sand-coat',
        title: `Sand lightly P${grit}${dry(b, 'hand') === 'wet' ? ' wet,' : ''} and wipe`,
        grits: [grit],
        method: dry(b, 'hand'),
        why: 'grip and nibs, edges left alone',
      })
    b.put({
      order,
      kind: 'coat',
      title: `${m.name[0]!.toUpperCase()}${m.name.slice(1)}, coat ${coat} of ${coats}`,
      product: m.slug,
      method: m.transfer < 0.9 || bleeds ? 'spray' : 'brush',
      coat,
      why: coat === coats ? `the last coat sets the sheen: ${facts.sheen}` : 'thin, on the wet edge, then left alone',
    })
    if (coat === 1 && ON_OLD_FILM.includes(choice.route))
      b.put({
        order: order + 2,
        kind: 'gate',
        title: 'Does the first coat hold?',
        why: 'a film that was only scuffed may still let go',
        gate: {
          slug: 'adhesion',
          look: 'Raking light over the dry coat; thumbnail and tape on a hidden place.',
          fails: 'It crawls, wrinkles, or comes off with the tape.',
          fallback: 'strip-chemical',
          chance: chanceOfFailing(choice.route, facts),
        },
      })
  }
  if (gloss)
    b.put({
      order: 800,
      kind: 'rub-out',
      title: `Level P1200 and rub out to ${facts.sheen}`,
      grits: [1200],
      method: 'wet',
      why: 'a film rubbed too early shrinks and shows scratches',
    })
}
