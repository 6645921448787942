/** Rules of the bare wood: bleach, fill, sand, grain, veneer, hazards. */
import { explainLadder, gritName, isCoarser, median_um, P, STOP_P, type StopFor } from '../abrasives'
import { does, firstAfter, isBare, lastBefore, wears } from '../acts'
import { finishMaterial } from '../build'
import { leadSuspected } from '../piece'
import { ladderBudget } from '../plan'
import { round } from '../units'
import { speciesOf } from '../wood'
import {
  abrades,
  breach,
  type Breach,
  COMMON,
  covers,
  DAY_MIN,
  each,
  gap_min,
  hours,
  isLadder,
  type RuleContext,
  type Rule,
  tooSoon,
  unfit,
} from './rule'

/** Old finish or bare wood abraded dry. */
const OILS: readonly string[] = ['varnish-oil', 'hardwax-oil-2c']
const dryAbrasion = (c: RuleContext, says: string): Breach[] =>
  each(c, v =>
    abrades(v) &&
    v.step.kind !== 'rub-out' &&
    v.step.method !== 'wet' &&
    (v.before.films.some(f => f.found) || isBare(v.before))
      ? says
      : null,
  )

/** What a covering step asks of the grit under it. */
function gritFor(kind: string, slug: string | null): StopFor {
  if (slug === 'hardwax-oil-2c') return 'hardwax'
  if (kind === 'oil-on') return slug === 'varnish-oil' ? 'varnish-oil' : 'film'
  if (kind === 'dye' || kind === 'paint-wash') return 'dye'
  return kind === 'stain' || kind === 'gel' || kind === 'conditioner' ? 'stain' : 'film'
}

export const WOOD_RULES: readonly Rule[] = [
  {
    slug: 'methylene-chloride-needs-licence',
    severity: 'forbidden',
    scope: 'plan',
    source: 'US 40 CFR 751 subpart B (2024), from memory; local rules decide',
    reason: 'Methylene chloride kills in closed rooms and is banned for most uses in many places.',
    mend: 'A citrus or soy gel, or record the licence under Shop.',
    check: c =>
      c.licences.includes('methylene-chloride')
        ? []
        : each(c, v =>
            v.product?.traits.includes('methylene-chloride') ? `${v.product!.name} without a licence` : null,
          ),
  },
  {
    slug: 'bleach-needs-bare-wood',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Bleach works on wood; a film keeps it off in patches.',
    mend: 'Strip first.',
    check: unfit('bleach-needs-bare-wood'),
  },
  {
    slug: 'bleach-rinse-and-dry',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Bleach left in the wood, or its water, eats or lifts what comes next.',
    mend: 'Rinse, and wait 24 to 48 h until the wood is near equilibrium.',
    check: c =>
      each(c, v => {
        if (!covers(v)) return null
        if (v.before.wet === 'bleach') return 'the bleach was not rinsed out'
        const rinse = lastBefore(v, u => u.step.kind === 'rinse')
        const least = rinse && isBare(v.before) ? gap_min(c, rinse.step.key, v.step.key) : Infinity
        return least < DAY_MIN ? tooSoon(rinse!.step.key, DAY_MIN, `only ${hours(least)} since the rinse`) : null
      }),
  },
  {
    slug: 'stop-grit',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Finer than the range takes less colour or holds less; coarser leaves scratches.',
    mend: 'End the ladder inside the range.',
    check: c =>
      each(c, v => {
        if (
          !covers(v) ||
          !isBare(v.before) ||
          v.before.inWood.some(w => w.role !== 'filler' && w.role !== 'bleach') ||
          v.before.filler ||
          v.before.grit === null
        )
          return null
        const range = STOP_P[gritFor(v.step.kind, v.step.product)]
        return isCoarser(v.before.grit, P(range.min)) || isCoarser(P(range.max), v.before.grit)
          ? `left at ${gritName(v.before.grit)}; P${range.min} to P${range.max} is the range: ${range.why}`
          : null
      }),
  },
  {
    slug: 'ladder-skips',
    severity: 'warn',
    scope: 'plan',
    source: 'ISO 6344, from memory; common practice',
    reason:
      'A grit more than 1.9 times finer than the one before leaves its scratches, and they show under ' +
      'the first colour.',
    mend: 'Put the grit between, or look at a last hand pass in raking light.',
    check: c =>
      c.visits.flatMap(v => {
        if (v.step.kind !== 'sand') return []
        const before =
          v.before.grit && v.step.grits[0] && isBare(v.before) && isCoarser(v.before.grit, v.step.grits[0])
            ? [v.before.grit]
            : []
        const oilOnOpenPores =
          OILS.includes(finishMaterial(c.buildUp.layers, c)?.slug ?? '') && speciesOf(v.group.species).pores === 'open'
        const ladder = [...before, ...v.step.grits]
        const rungs = explainLadder(ladder, { oilOnOpenPores, rustic: c.facts.rustic })
        const at = rungs.findIndex(r => r.gap)
        const wide = rungs[at]
        return wide
          ? [
              breach(
                v.step,
                [
                  `${gritName(ladder[at - 1]!)} to ${gritName(wide.grit)} is ${round(wide.ratio!, 1)} times`,
                  wide.fill && `${gritName(wide.fill)} fills the gap`,
                  wide.excuse,
                ]
                  .filter(Boolean)
                  .join('; '),
                wide.excuse ? 'note' : 'warn',
              ),
            ]
          : []
      }),
  },
  {
    slug: 'filler-dry-before-lacquer',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'A coat over damp filler lifts it or turns it grey.',
    mend: 'Wait 24 h, three days under a waterborne coat, or put dewaxed shellac on it.',
    check: c =>
      each(c, v => {
        const filler = v.before.filler ? c.steps.find(s => s.key === v.before.filler) : null
        if (v.step.kind !== 'coat' || filler?.product !== 'paste-filler') return null
        const needs = v.product!.base === 'water' ? 3 * DAY_MIN : DAY_MIN
        const least = gap_min(c, filler.key, v.step.key)
        return least < needs && v.step.product !== 'dewaxed-shellac'
          ? tooSoon(filler.key, needs, `${hours(least)} from the filler to this coat; ${hours(needs)} at the least`)
          : null
      }),
  },
  {
    slug: 'repair-filler-before-colour',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Filler never takes stain like wood.',
    mend: 'Tint the filler and try it under the finish, or fill after sealing with coloured wax.',
    check: c =>
      each(c, v =>
        does(v.step, 'soaks') &&
        lastBefore(v, u => u.step.kind === 'mend' && u.step.fields.filler !== 'tinted') &&
        !firstAfter(v, u => u.step.kind === 'spot-colour')
          ? 'mended places lie under this colour'
          : null,
      ),
  },
  {
    slug: 'steel-wool-and-water',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Steel left in the wood rusts under water, and blackens tannin.',
    mend: 'Non-woven pads or bronze wool instead.',
    check: c =>
      each(c, v =>
        v.before.steelWool && isBare(v.before) && (does(v.step, 'floods') || (covers(v) && v.product?.base === 'water'))
          ? 'steel wool was used on this wood'
          : null,
      ),
  },
  {
    slug: 'ammonia-needs-tannin',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Ammonia darkens tannin; where there is none it does nothing.',
    mend: 'Dye instead.',
    check: c =>
      each(c, v =>
        v.step.product === 'ammonia' && !speciesOf(v.group.species).tannin
          ? `${speciesOf(v.group.species).name} holds little tannin`
          : null,
      ),
  },
  {
    slug: 'veneer-budget',
    severity: 'stop',
    scope: 'plan',
    source: `${COMMON}, a model to be tuned`,
    reason: 'The ladder takes more than the veneer can spare.',
    mend: 'By hand only, or rub with a pad instead of sanding.',
    check: c =>
      each(c, v => {
        if (!isLadder(v)) return null
        const ladder = v.own.filter(isLadder).flatMap(u => u.step.grits)
        const budget = ladderBudget(c, v.group, c.buildUp, ladder)
        if (!budget || budget.verdict === 'fine' || (budget.verdict === 'by-hand' && v.step.method === 'hand'))
          return null
        return (
          `${Math.round(budget.takes_um)} µm of ${Math.round(budget.thickness_um - budget.reserve_um)} µm to ` +
          `spare; ${budget.verdict === 'by-hand' ? 'by hand only' : 'do not sand'}`
        )
      }),
  },
  {
    slug: 'lead-no-dust',
    severity: 'forbidden',
    scope: 'plan',
    source: 'US 16 CFR 1303 (1978), from memory',
    reason: 'Old paint or varnish may hold lead: no dry sanding, no heat.',
    mend: 'Work wet, or record a lead test that says no.',
    check: c => (leadSuspected(c.facts.lead) ? dryAbrasion(c, 'dry abrasion while lead is not ruled out') : []),
  },
  {
    slug: 'poison-no-dust',
    severity: 'forbidden',
    scope: 'plan',
    source: COMMON,
    reason: 'A hazard that is not ruled out forbids dust: no dry sanding, no dry brushing.',
    mend: 'Work wet, or record evidence that clears the hazard.',
    check: c =>
      c.facts.bans.includes('dry-sanding') && !leadSuspected(c.facts.lead)
        ? dryAbrasion(c, 'dry abrasion while a hazard is not ruled out')
        : [],
  },
  {
    slug: 'keep-patina',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'The mellow surface is what is worth money on an old piece.',
    mend: 'P180 at the coarsest (P150 on flats), pads on turned and carved parts, no bleach.',
    check: c =>
      !c.facts.keepPatina
        ? []
        : each(c, v => {
            if (v.step.kind === 'bleach') return 'bleach takes the patina'
            const coarsest = Math.max(0, ...v.step.grits.map(median_um))
            return wears(v.step) && coarsest > median_um(P(150))
              ? `${gritName(v.step.grits[0]!)} is coarser than P150`
              : null
          }),
  },
  {
    slug: 'closed-pore-no-filler',
    severity: 'note',
    scope: 'plan',
    source: COMMON,
    reason: 'Closed-pored wood has nothing to fill.',
    mend: 'Leave the filler out.',
    check: c =>
      each(c, v =>
        v.step.kind === 'fill' && speciesOf(v.group.species).pores === 'closed'
          ? `${speciesOf(v.group.species).name} is closed-pored`
          : null,
      ),
  },
  {
    slug: 'pva-on-sealed-joint',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Wood glue does not hold on finish.',
    mend: 'Scrape to wood, or epoxy.',
    check: c =>
      each(c, v =>
        does(v.step, 'mends') && v.step.fields.glue === 'wood-glue' && !isBare(v.before)
          ? 'finish lies where the glue is to hold'
          : null,
      ),
  },
  {
    slug: 'rigid-filler-in-moving-crack',
    severity: 'warn',
    scope: 'plan',
    source: 'Wood Handbook table 13-5, from memory; common practice',
    reason: 'A brittle filler breaks out with the next season.',
    mend: 'Fill with what stretches, or let in a strip of the same wood.',
    check: c =>
      each(c, v =>
        v.step.kind === 'mend' &&
        c.facts.movingCracks.some(id => v.step.faces.includes(id) && v.group.faces.some(f => f.id === id)) &&
        !['stretching', 'wood-strip'].includes(v.step.fields.filler ?? '')
          ? 'the crack here moves with the seasons'
          : null,
      ),
  },
  {
    slug: 'keep-maker-mark',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: "A maker's mark that was sanded away is gone.",
    mend: 'Leave it out and mask it.',
    // once for the plan; the steps themselves each name what to keep
    check: c =>
      c.facts.marks.length === 0
        ? []
        : c.steps
            .filter(s => wears(s))
            .slice(0, 1)
            .map(s => breach(s, `keep: ${c.facts.marks.join(', ')}`)),
  },
  {
    slug: 'flood-on-veneer',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Water soaks veneer and animal glue: blisters, open joints.',
    mend: 'Less water, wiped fast, checked for blisters.',
    check: c => each(c, v => (v.group.substrate === 'veneer' && does(v.step, 'floods') ? 'this floods veneer' : null)),
  },
  {
    slug: 'wood-too-wet',
    severity: 'stop',
    scope: 'plan',
    source: 'Wood Handbook FPL-GTR-190, eq. 4-5, from memory; margin common practice',
    reason: 'Wood more than 2 points above equilibrium shrinks under the new finish, and the finish fails.',
    mend: 'Let it stand, and measure again at a moisture gate before the first coat or colour.',
    check: c =>
      each(c, v => {
        const wet = c.facts.wet.find(w => v.step.faces.includes(w.faceId) && v.group.faces.some(f => f.id === w.faceId))
        const covered =
          v.before.inWood.some(w => w.role !== 'filler' && w.role !== 'bleach') || v.before.films.some(f => !f.found)
        if (!wet || covered || !covers(v)) return null
        return lastBefore(v, u => u.step.gate?.slug === 'moisture')
          ? null
          : `the wood is above ${round(wet.most_pct, 1)} %, and nothing measures it again before this step`
      }),
  },
]
