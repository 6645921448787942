/**
 * What may lie on what: rules as data with a check beside each. A rule reads surface states and waits only.
 * Scope `plan` is judged on every change; `start` needs the moment and is judged when a step is to start.
 */
import { STOP_P } from '../abrasives'
import { budgetOf, groupsOf, isBare, walk, foundSurface, type Choice, type Facts, type Group, type Step, type Surface, type Visit, type Wait } from '../plan'
import { leadSuspected, type Severity } from '../safety'
import { round } from '../units'
import { materialOf } from './materials'

export interface RuleContext { facts: Facts, choice: Choice, steps: readonly Step[], waits: readonly Wait[], visits: readonly Visit[] }
export interface Breach { step: string, says: string }
export interface Rule {
  slug: string
  severity: Severity
  scope: 'plan' | 'start' | 'shop'
  reason: string
  mend: string
  source: string
  /** null: judged by `mayStart`, with the moment and the room */
  check: ((c: RuleContext) => Breach[]) | null
}
export interface Verdict extends Omit<Rule, 'check'> { rule: string, step: string, says: string }

const COMMON = 'common practice'
const ABRASIVE = ['scuff', 'roughen', 'level', 'sand', 'sand-coat', 'pad']
const COVERING = ['coat', 'gel', 'stain', 'oil-on', 'conditioner']

const breach = (step: Step, says: string): Breach => ({ step: step.key, says })
const each = (c: RuleContext, when: (v: Visit) => string | null): Breach[] => c.visits.flatMap((v) => {
  const says = when(v)
  return says ? [breach(v.step, says)] : []
})
const product = (v: Visit) => v.step.product ? materialOf(v.step.product) : null
/** Old finish or bare wood abraded dry. */
const dryAbrasion = (c: RuleContext, says: string): Breach[] =>
  each(c, v => ABRASIVE.includes(v.step.kind) && v.step.method !== 'wet' && (v.before.films.some(f => f.found) || isBare(v.before)) ? says : null)
const lastInWood = (s: Surface) => s.inWood.at(-1)

/** Least minutes from the start of one step to the start of a later one, along the order of the work. */
export function leastElapsed_min(c: Pick<RuleContext, 'steps' | 'waits'>, from: string, to: string): number {
  const a = c.steps.findIndex(s => s.key === from)
  const b = c.steps.findIndex(s => s.key === to)
  let sum = 0
  for (let i = a; i < b; i++) {
    const wait = c.waits.find(w => w.from === c.steps[i]!.key && w.to === c.steps[i + 1]!.key)
    sum += c.steps[i]!.attended_min + (wait?.min ?? 0)
  }
  return sum
}

/** Oil colour under a first film of `base`, drying for less than a day by the plan. */
const wetColourUnder = (c: RuleContext, covers: (v: Visit) => boolean): Breach[] => each(c, (v) => {
  const colour = lastInWood(v.before)
  if (!covers(v) || !colour || colour.base !== 'oil' || v.before.films.some(f => f.step && f.slug !== 'gel-stain')) return null
  const direct = c.waits.find(w => w.from === colour.step && w.to === v.step.key)
  const elapsed = Math.max(direct?.min ?? 0, leastElapsed_min(c, colour.step, v.step.key))
  return elapsed < 1440 ? `only ${Math.round(elapsed / 60)} h between the oil colour and this coat; 24 h at least, 48 to 72 h cool or damp` : null
})

export const RULES: readonly Rule[] = [
  { slug: 'conditioner-base-matches-stain', severity: 'stop', scope: 'plan', source: COMMON, reason: 'A conditioner of another base does not even out the stain, it repels it.',
    mend: 'Take a conditioner of the stain\'s base.',
    check: c => each(c, (v) => {
      const under = v.before.inWood.findLast(w => w.role === 'conditioner')
      return v.step.kind === 'stain' && under && under.base !== product(v)!.base ? `${under.base}-based conditioner under ${product(v)!.base}-based stain` : null
    }) },
  { slug: 'stain-within-2h-of-conditioner', severity: 'stop', scope: 'plan', source: COMMON, reason: 'After two hours the conditioner has sealed too far for the stain to go in.',
    mend: 'Put the stain directly after the conditioner, or condition again.',
    check: c => each(c, (v) => {
      const under = lastInWood(v.before)
      if (v.step.kind !== 'stain' || under?.role !== 'conditioner') return null
      const least = leastElapsed_min(c, under.step, v.step.key)
      return least > 120 ? `${Math.round(least)} min from conditioner to stain at the least; 120 is the limit` : null
    }) },
  { slug: 'stain-needs-bare-wood', severity: 'stop', scope: 'plan', source: COMMON, reason: 'A penetrating stain does not go through a film or a sealer; it stays on top and smears.',
    mend: 'Strip first, or colour with gel stain.',
    check: c => each(c, v => v.step.kind === 'stain' && !isBare(v.before) ? `${v.before.films.at(-1)!.slug} still lies on the wood` : null) },
  { slug: 'gel-over-film-needs-scuff', severity: 'stop', scope: 'plan', source: COMMON, reason: 'Gel stain holds on a film only in its scratches.', mend: 'Add a scuff P220 to P320 before the gel.',
    check: c => each(c, v => v.step.kind === 'gel' && !isBare(v.before) && !v.before.scuffed && v.before.films.at(-1)!.slug !== 'gel-stain' ? 'the film under the gel is not scuffed' : null) },
  { slug: 'gel-only-darker', severity: 'stop', scope: 'plan', source: COMMON, reason: 'A gel stain hides and darkens; it cannot go lighter than what is under it.', mend: 'Strip and bleach, or agree a darker colour with the client.',
    check: c => c.facts.tone === 'lighter' ? each(c, v => v.step.kind === 'gel' ? 'the client wants it lighter' : null) : [] },
  { slug: 'stop-grit', severity: 'warn', scope: 'plan', source: COMMON, reason: 'Finer than the range takes less colour or holds less; coarser leaves scratches.', mend: 'End the ladder inside the range.',
    check: c => each(c, (v) => {
      if (!COVERING.includes(v.step.kind) || !isBare(v.before) || v.before.inWood.length > 0 || v.before.grit === null) return null
      const range = STOP_P[v.step.kind === 'stain' || v.step.kind === 'gel' || v.step.kind === 'conditioner' ? 'stain' : v.step.kind === 'oil-on' ? 'varnish-oil' : 'film']
      return v.before.grit < range.min || v.before.grit > range.max ? `left at P${v.before.grit}; P${range.min} to P${range.max} is the range: ${range.why}` : null
    }) },
  { slug: 'oil-stain-dry-before-waterborne', severity: 'stop', scope: 'plan', source: COMMON, reason: 'Waterborne film over damp oil stain peels.', mend: 'Lengthen the wait to 24 h (48 to 72 h cool or damp), or put dewaxed shellac on the dry stain.',
    check: c => wetColourUnder(c, v => v.step.kind === 'coat' && product(v)!.base === 'water') },
  { slug: 'oil-stain-dry-before-shellac', severity: 'warn', scope: 'plan', source: COMMON, reason: 'Shellac over damp oil stain clouds and lifts.', mend: 'Lengthen the wait to 24 h, better 48 h.',
    check: c => wetColourUnder(c, v => v.step.kind === 'coat' && product(v)!.base === 'alcohol') },
  { slug: 'wax-under-anything', severity: 'stop', scope: 'plan', source: COMMON, reason: 'Nothing holds on wax.', mend: 'Take the wax off with white spirit first.',
    check: c => each(c, v => COVERING.includes(v.step.kind) && v.before.waxed ? 'wax lies under this step' : null) },
  { slug: 'clean-before-abrade', severity: 'stop', scope: 'plan', source: COMMON, reason: 'Abrasion drives grease, wax and polish into the surface.', mend: 'Add a wash with mild soap, then white spirit, before it.',
    check: c => each(c, v => ABRASIVE.includes(v.step.kind) && v.before.dirty ? 'the surface has not been washed' : null) },
  { slug: 'oil-on-sealed-surface', severity: 'stop', scope: 'plan', source: COMMON, reason: 'Oil does not go into a sealed surface; it stays sticky.', mend: 'Strip to bare wood, or choose a film.',
    check: c => each(c, v => v.step.kind === 'oil-on' && !isBare(v.before) ? `${v.before.films.at(-1)!.slug} seals the wood` : null) },
  { slug: 'contamination', severity: 'stop', scope: 'plan', source: COMMON, reason: 'Silicone, wax or oil comes back as fish eyes in stain, sealer and topcoat.', mend: 'Solvent wash, a wetting test, a gate, and a dewaxed shellac barrier before the topcoat.',
    check: c => each(c, (v) => {
      if (!COVERING.includes(v.step.kind) || v.before.contamination === 'none') return null
      if (v.before.contamination === 'untreated') return 'water beaded here, and it was not washed with solvent'
      const gateBefore = c.visits.some(u => u.group === v.group && u.index < v.index && u.step.kind === 'gate')
      if (!gateBefore) return 'no wetting test between the solvent wash and this step'
      const film = product(v)!.role === 'film' || product(v)!.role === 'oil'
      return film && v.before.contamination !== 'barred' && v.step.product !== 'dewaxed-shellac' ? 'no dewaxed shellac barrier under this coat' : null
    }) },
  { slug: 'recoat-window-passed', severity: 'stop', scope: 'plan', source: COMMON, reason: 'After its window a coat finds nothing to hold on, unless it melts in.', mend: 'Scuff before this coat.',
    check: c => c.waits.flatMap((w) => {
      const to = c.steps.find(s => s.key === w.to)!
      if (w.kind !== 'recoat' || w.max === null || to.kind !== 'coat') return []
      const least = leastElapsed_min(c, w.from, w.to)
      return least > w.max ? [breach(to, `${Math.round(least / 60)} h at the least since the coat before; its window closes after ${w.max / 60} h`)] : []
    }) },
  { slug: 'veneer-budget', severity: 'stop', scope: 'plan', source: `${COMMON}, a model to be tuned`, reason: 'The ladder takes more than the veneer can spare.', mend: 'By hand only, or rub with a pad instead of sanding.',
    check: c => each(c, (v) => {
      if (v.step.kind !== 'sand') return null
      const budget = budgetOf(c.facts, v.group, c.choice)
      if (!budget || budget.verdict === 'fine' || (budget.verdict === 'by-hand' && v.step.method === 'hand')) return null
      return `${Math.round(budget.takes_um)} µm of ${Math.round(budget.thickness_um - budget.reserve_um)} µm to spare; ${budget.verdict === 'by-hand' ? 'by hand only' : 'do not sand'}`
    }) },
  { slug: 'lead-no-dust', severity: 'forbidden', scope: 'plan', source: 'US 16 CFR 1303 (1978), from memory', reason: 'Old paint or varnish may hold lead: no dry sanding, no heat.', mend: 'Work wet, or record a lead test that says no.',
    check: c => leadSuspected(c.facts.lead) ? dryAbrasion(c, 'dry abrasion while lead is not ruled out') : [] },
  { slug: 'poison-no-dust', severity: 'forbidden', scope: 'plan', source: COMMON, reason: 'A hazard that is not ruled out forbids dust: no dry sanding, no dry brushing.', mend: 'Work wet, or record evidence that clears the hazard.',
    check: c => c.facts.bans.includes('dry-sanding') && !leadSuspected(c.facts.lead) ? dryAbrasion(c, 'dry abrasion while a hazard is not ruled out') : [] },
  { slug: 'wood-too-wet', severity: 'stop', scope: 'plan', source: 'Wood Handbook FPL-GTR-190, eq. 4-5, from memory; margin common practice', reason: 'Wood more than 2 points above equilibrium shrinks under the new finish, and the finish fails.', mend: 'Let it stand, and measure again at a moisture gate before the first coat or colour.',
    check: c => each(c, (v) => {
      const wet = c.facts.wet.find(w => v.step.faces.includes(w.faceId) && v.group.faces.some(f => f.id === w.faceId))
      const covered = v.before.inWood.length > 0 || v.before.films.some(f => !f.found)
      if (!wet || covered || !COVERING.includes(v.step.kind)) return null
      return c.visits.some(u => u.group === v.group && u.index < v.index && u.step.gate?.slug === 'moisture') ? null : `the wood is above ${round(wet.most_pct, 1)} %, and nothing measures it again before this step`
    }) },
  { slug: 'hardware-decided-first', severity: 'stop', scope: 'start', source: COMMON, reason: 'Old holes are plugged and new ones placed before surface repair and colour.', mend: 'Get the client\'s word on the hardware first; record it under Client.',
    check: c => c.facts.undecided.length === 0 ? [] : c.steps.filter(s => s.kind === 'mend' || COVERING.includes(s.kind)).map(s => breach(s, `the client has not answered about: ${c.facts.undecided.join(', ')}`)) },
  { slug: 'topcoat-climate', severity: 'stop', scope: 'start', source: 'WMO-No. 8; ISO 8502-4, from memory; common practice', reason: 'Damp, cold or hot air spoils the film.', mend: 'Wait for better air, warm or dry the room.',
    check: null },
]

/** All breaches of rules of one scope, each with its reason and mend. One verdict per rule and step. */
export function judgePlan(input: { facts: Facts, choice: Choice, steps: readonly Step[], waits: readonly Wait[], start?: (g: Group) => Surface, scope?: Rule['scope'] }): Verdict[] {
  const { facts, scope = 'plan', start = g => foundSurface(facts, g) } = input
  const context: RuleContext = { ...input, visits: walk(input.steps, groupsOf(facts), start) }
  const found = new Map<string, Verdict>()
  for (const { check, ...rule } of RULES.filter(r => r.scope === scope)) {
    for (const b of check?.(context) ?? []) if (!found.has(`${rule.slug}|${b.step}`)) found.set(`${rule.slug}|${b.step}`, { ...rule, rule: rule.slug, ...b })
  }
  return [...found.values()]
}
