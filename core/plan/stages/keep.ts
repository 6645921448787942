/** Stages that keep the old film: wash, scuff, level, let flow, repair spots. */
import { P, STOP_P, type StopFor } from '../../abrasives'
import type { Surface } from '../../acts'
import { finishOn } from '../../piece'
import { round } from '../../units'
import { chanceOfFailing } from '../chances'
import { type Bench, cleanOff, dry, mend } from './bench'

export function wash(b: Bench, start: Surface) {
  const why = 'grease, wax and polish come off before any abrasion, or the paper drives them in'
  if (b.s.dirty) b.put(100, 'wash', why, { product: 'mild-soap', method: 'rag' })
  if (start.waxed)
    b.put(105, 'solvent-wash', 'nothing holds on wax', {
      product: 'white-spirit',
      method: 'rag',
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
  mend(b, 140, 'mended before the film is scuffed; what carries finish takes epoxy, not wood glue')
  b.put(150, 'scuff', STOP_P[use].why, { grits: [P(STOP_P[use].take)], method: dry(b, 'hand') })
  cleanOff(b, 160)
}

export function level(b: Bench) {
  washContamination(b, 110)
  mend(b, 140, 'mended before the film is levelled')
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
      chance: chanceOfFailing(b.buildUp.ground, b.facts),
    },
  })
  b.put(176, 'scuff', 'grip for the next coat', { grits: [P(320)], method: dry(b, 'hand'), fields: { on: 'sealer' } })
  cleanOff(b, 177)
}

/** A film that its own solvent melts is let flow together again. */
export function amalgamate(b: Bench) {
  const shellac = finishOn(b.facts, b.group)[0]?.finish === 'shellac'
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
      chance: chanceOfFailing(b.buildUp.ground, b.facts),
    },
  })
}

const SPOT_COATS = 3
/** Colour back where it is gone, then local coats that melt in; levelled only there. */
export function spotRepair(b: Bench) {
  mend(b, 140, 'chips are filled before their colour')
  b.put(150, 'spot-colour', 'colour first, or the film over it shows the wood', {
    product: 'dewaxed-shellac',
    method: 'brush',
  })
  const lacquer = finishOn(b.facts, b.group)[0]?.finish === 'nitrocellulose-lacquer'
  for (let coat = 1; coat <= SPOT_COATS; coat++)
    b.put(160 + coat, 'spot-coat', 'it melts into the film around it', {
      product: lacquer ? 'nitrocellulose-lacquer' : 'dewaxed-shellac',
      method: 'brush',
      coat,
      fields: { of: SPOT_COATS },
    })
  b.put(170, 'rub-out', 'after a week; look again for sink-back before delivery', {
    grits: [P(1200)],
    method: 'wet',
    fields: { where: 'spots' },
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
