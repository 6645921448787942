/** Which routes are possible on this piece, why, and what each costs in hours, days and money. */
import { estimate, addEstimates, lostAtGate, type Estimate, type Rates } from '../estimate'
import { dryFilm_um, FINISHES, materialOf, type Finish } from '../layers/materials'
import { judgePlan } from '../layers/rules'
import { shareOf } from '../examine/damage'
import { budgetOf, chanceOfFailing, chanceReasons, findingsOf, finishOn, groupsOf, isFound, ROUTES, STRIPPING, wetOnly, workOutPlan, type Choice, type Facts, type Finding, type FindingKind, type Plan, type RouteSlug } from '../plan'
import { leadSuspected, type Caution } from '../safety'
import { forecast, type Hours } from '../timetable'
import { round, sumOf } from '../units'

export type Standing = 'possible' | 'doubtful' | 'ruled-out'
export interface RouteReason { standing: Standing, says: string }

const DAY_MS = 86_400_000
const ruledOut = (says: string): RouteReason => ({ standing: 'ruled-out', says })
const doubtful = (says: string): RouteReason => ({ standing: 'doubtful', says })
const speaksFor = (says: string): RouteReason => ({ standing: 'possible', says })

const layerName = (l: { finish: string, certainty: number }) => `${l.finish}, ${Math.round(l.certainty * 100)} % sure`
const filmName = (facts: Facts) => facts.found ? layerName(facts.found) : 'no finish test yet'
/** "grade 3, 12 % of the faces": what a finding amounts to. */
const extent = (facts: Facts, f: Finding) => {
  const share = shareOf(facts, f.kind)
  return `grade ${f.grade}${share >= 0.005 ? `, ${Math.round(share * 100)} % of the faces` : ''}`
}
/** Worn or crazed over more than this share of the faces counts as all over. Shop default. */
const ALL_OVER = 0.15

/** Reasons that any route keeping the old film shares. */
function keepsFilm(facts: Facts): RouteReason[] {
  const reasons: RouteReason[] = []
  const peeling = findingsOf(facts, 'peeling')[0]
  if (peeling) reasons.push(ruledOut(`Peeling, ${extent(facts, peeling)}: what does not hold cannot carry a new coat.`))
  if (facts.tone === 'lighter') reasons.push(ruledOut('The client wants it lighter; the old colour stays under this route.'))
  for (const group of groupsOf(facts)) {
    const top = finishOn(facts, group)[0]
    const where = facts.finishes.length > 1 ? ` on finish ${group.finishGroup}` : ''
    if (top?.finish === 'wax') reasons.push(ruledOut(`The finish${where} is wax: nothing holds on it.`))
    if (top && NO_FILM_FINISH.includes(top.finish)) reasons.push(ruledOut(`There is no film to keep${where} (${layerName(top)}).`))
    if (!top || top.certainty < 0.7) reasons.push(doubtful(`The film${where} is not known for sure (${top ? layerName(top) : filmName(facts)}). Test again.`))
  }
  if (isFound(facts, 'dirt-and-wax')) reasons.push(doubtful('Dirt and wax were found; they must come off completely first.'))
  return reasons
}
const words = (slug: string) => slug[0]!.toUpperCase() + slug.slice(1).replaceAll('-', ' ')
/** What lies in or below the film. */
const BELOW: readonly FindingKind[] = ['scratches', 'dents', 'white-ring', 'black-ring', 'heat-mark', 'crazing', 'coarse-film', 'runs', 'brush-marks', 'orange-peel', 'peeling', 'print', 'soft-film', 'worn-through', 'sanded-through', 'old-paint']
/** Spots on more than this share of the faces are no longer few. Shop default. */
const FEW = 0.05
const COATS_OVER: readonly RouteSlug[] = ['scuff-and-recoat', 'scuff-and-gel', 'level-barrier-recoat']
const NO_FILM_FINISH = ['none', 'oil', 'hardwax-oil']

/** Reasons from the findings and the wish, for or against one route. */
export function routeReasons(route: RouteSlug, facts: Facts): RouteReason[] {
  const worn = findingsOf(facts, 'worn-through')[0]
  const rough = findingsOf(facts, 'runs', 'brush-marks', 'orange-peel', 'overspray')
  const reasons: RouteReason[] = []
  if (groupsOf(facts).length === 0) reasons.push(ruledOut('No face is in scope. Add the faces that are to be refinished.'))
  const top = groupsOf(facts).map(g => finishOn(facts, g)[0])
  const melts = top.length > 0 && top.every(l => l && ['shellac', 'nitrocellulose-lacquer'].includes(l.finish))
  const meltsIn = () => {
    if (!melts) reasons.push(top.every(l => l) ? ruledOut(`Its own solvent does not melt this film (${filmName(facts)}).`) : doubtful('The film is not known: only shellac and lacquer melt into themselves.'))
    if (facts.tone !== 'same') reasons.push(ruledOut('The colour stays as it is under this route.'))
  }
  switch (route) {
    case 'clean-and-wax': {
      const broken = findingsOf(facts, ...BELOW).filter(f => f.wish === 'mend')
      const peeling = findingsOf(facts, 'peeling')[0]
      if (peeling) reasons.push(ruledOut(`Peeling, ${extent(facts, peeling)}: wax holds nothing down.`))
      if (facts.tone !== 'same') reasons.push(ruledOut('Wax does not change the colour.'))
      if (top.length > 0 && top.every(l => l?.finish === 'none')) reasons.push(ruledOut('The wood is bare; wax alone protects little.'))
      const worst = broken.find(f => f !== peeling)
      if (worst) reasons.push(worst.grade >= 3 ? ruledOut(`${words(worst.kind)}, ${extent(facts, worst)}: it lies below the surface.`) : doubtful(`${words(worst.kind)}, ${extent(facts, worst)}: it stays.`))
      if (facts.use === 'hard' && facts.age === 'new') reasons.push(doubtful('Wax is no finish for hard use.'))
      break
    }
    case 'amalgamate': {
      meltsIn()
      const worn = findingsOf(facts, 'worn-through', 'peeling')[0]
      if (worn) reasons.push(worn.grade >= 3 ? ruledOut(`${words(worn.kind)}, ${extent(facts, worn)}: there is no film left to flow.`) : doubtful(`${words(worn.kind)}, ${extent(facts, worn)}: those places want a repair of their own.`))
      const flows = findingsOf(facts, 'crazing', 'white-ring', 'heat-mark')[0]
      reasons.push(flows ? speaksFor(`${words(flows.kind)}, ${extent(facts, flows)}: it closes when the film flows.`) : doubtful('Nothing was found that flowing would close.'))
      break
    }
    case 'spot-repair': {
      meltsIn()
      const spots = findingsOf(facts, 'worn-through', 'veneer-chipped', 'white-ring', 'black-ring', 'sanded-through', 'heat-mark')
      if (spots.length === 0) reasons.push(doubtful('There is no spot to repair.'))
      const share = shareOf(facts, ...spots.map(f => f.kind))
      if (share > FEW) reasons.push(ruledOut(`Spots cover ${Math.round(share * 100)} % of the faces: that is all over.`))
      const overall = findingsOf(facts, 'peeling', 'crazing', 'orange-peel', 'coarse-film')[0]
      if (overall) reasons.push(ruledOut(`${words(overall.kind)}, ${extent(facts, overall)}: it is not a spot.`))
      break
    }
    case 'strip-mechanical': {
      if (wetOnly(facts)) reasons.push(ruledOut('Dust is forbidden here until the hazards are settled.'))
      if (facts.keepPatina) reasons.push(ruledOut('The patina is kept: nothing is sanded off.'))
      const shaped = groupsOf(facts).flatMap(g => g.faces).find(f => f.shape !== 'flat')
      if (shaped) reasons.push(shaped.shape === 'profiled' ? doubtful(`${shaped.part}, ${shaped.name} is profiled.`) : ruledOut(`${shaped.part}, ${shaped.name} is ${shaped.shape}: a scraper does not reach it.`))
      if (groupsOf(facts).some(g => g.substrate === 'veneer')) reasons.push(doubtful('Veneer: only as far as its budget goes.'))
      if (isFound(facts, 'several-layers', 'runs')) reasons.push(doubtful('Thick old film: paper clogs; stripper is quicker.'))
      if (top.length > 0 && top.every(l => l?.finish === 'none')) reasons.push(ruledOut('The wood is bare: there is nothing to take off.'))
      break
    }
    case 'strip-both': {
      if (wetOnly(facts)) reasons.push(ruledOut('Sanding dry is forbidden here until the hazards are settled.'))
      if (top.length > 0 && top.every(l => l?.finish === 'none')) reasons.push(ruledOut('The wood is bare: there is nothing to strip.'))
      if (facts.keepPatina) reasons.push(doubtful('Patina: strip to 90–95 %, stop, and rub with pads.'))
      else if (facts.age === 'keep' && ['before-1850', '1850-1925'].includes(facts.period)) reasons.push(doubtful('An old piece whose age is kept: paper goes no further here than after stripper alone.'))
      break
    }
    case 'refer': {
      const grave = facts.bans.includes('opening') || facts.bans.includes('dry-brushing')
      reasons.push(grave ? speaksFor('Hazards stand in the way that want a conservator or a licensed firm.') : facts.keepPatina && facts.period === 'before-1850' ? doubtful('An early piece whose surface is kept: ask a conservator when its finish is original.') : doubtful('Nothing asks for a conservator.'))
      break
    }
    case 'scuff-and-recoat': {
      reasons.push(...keepsFilm(facts))
      if (worn) reasons.push(worn.grade >= 3 || shareOf(facts, 'worn-through') > ALL_OVER ? ruledOut(`Worn through, ${extent(facts, worn)}: a clear coat shows every bare patch.`) : doubtful(`Worn through, ${extent(facts, worn)}: the bare patches need colour first.`))
      if (rough.some(f => f.grade >= 3)) reasons.push(doubtful('Drips or brush marks stay under a new coat.'))
      const crazed = findingsOf(facts, 'crazing')[0]
      if (crazed) reasons.push(crazed.grade >= 3 ? ruledOut(`Crazing, ${extent(facts, crazed)}: it comes through a new coat.`) : doubtful('Light crazing may come through.'))
      if (facts.tone === 'darker') reasons.push(doubtful('A clear coat alone does not make it darker.'))
      if (isFound(facts, 'water-beads', 'fish-eyes')) reasons.push(doubtful('Contamination was found: wash, test, barrier.'))
      break
    }
    case 'scuff-and-gel': {
      reasons.push(...keepsFilm(facts))
      if (facts.tone !== 'darker') reasons.push(facts.tone === 'same' ? doubtful('Gel stain goes darker; the client wants the same colour.') : doubtful('Gel stain goes darker only.'))
      else reasons.push(speaksFor('The client wants it darker, and gel hides scratches.'))
      if (worn && worn.grade >= 4) reasons.push(doubtful(`Worn through, ${extent(facts, worn)}: gel takes differently on bare wood.`))
      break
    }
    case 'level-barrier-recoat': {
      reasons.push(...keepsFilm(facts))
      if (rough.length) reasons.push(speaksFor(`${rough[0]!.kind}, ${extent(facts, rough[0]!)}: levelling takes it away.`))
      else reasons.push(doubtful('Nothing was found that asks for levelling; scuffing is milder.'))
      if (isFound(facts, 'several-layers')) reasons.push(doubtful('Several layers: cutting through them leaves halos that show only under the sealer.'))
      const shaped = groupsOf(facts).flatMap(g => g.faces).filter(f => f.shape !== 'flat')
      if (shaped.length) reasons.push(doubtful(`${shaped[0]!.part}, ${shaped[0]!.name} is ${shaped[0]!.shape}: it cannot be levelled.`))
      break
    }
    case 'strip-chemical': {
      if (groupsOf(facts).length > 0 && groupsOf(facts).every(g => finishOn(facts, g)[0]?.finish === 'none')) reasons.push(ruledOut('The wood is bare: there is nothing to strip.'))
      if (isFound(facts, 'several-layers')) reasons.push(speaksFor('Several layers come off together.'))
      const failing = findingsOf(facts, 'peeling', 'worn-through', 'crazing')[0]
      if (failing) reasons.push(speaksFor(`${failing.kind}, ${extent(facts, failing)}: it comes off with the film.`))
      if (facts.tone === 'lighter') reasons.push(speaksFor('The old colour comes off, so that it can become lighter.'))
      if (facts.bans.includes('dry-sanding') && !leadSuspected(facts.lead)) reasons.push(doubtful('A hazard is not ruled out: wet methods only.'))
      if (leadSuspected(facts.lead)) reasons.push(doubtful(`Lead ${facts.lead === 'yes' ? 'was found' : 'is not ruled out'}: wet methods only, and local rules on the waste.`))
      if (facts.pace.stripper !== null) reasons.push(speaksFor(`The timed patch counts: ${round(facts.pace.stripper)} min for each flat m².`))
      if (facts.keepPatina) reasons.push(doubtful('Patina: strip to 90–95 %, stop, and rub with pads.'))
      break
    }
  }
  return reasons
}

export interface RouteVerdict {
  route: RouteSlug
  standing: Standing
  reasons: RouteReason[]
  chance: number
  chanceReasons: { p: number, why: string }[]
  plan: Plan
  likely: Estimate
  worst: Estimate
  likelyDays: number
  worstDays: number
  readyLikely_ms: number
  readyWorst_ms: number
  /** how far back one can go afterwards */
  reversible: 'wholly' | 'partly' | 'no'
  patina: 'kept' | 'partly' | 'lost'
  /** cautions of its steps */
  hazards: Caution[]
  gates: { look: string, fails: string, fallback: RouteSlug | null, chance: number }[]
  /** dry film when done, µm */
  film_um: number
}

const REVERSIBLE: Record<RouteSlug, RouteVerdict['reversible']> = { 'clean-and-wax': 'wholly', 'amalgamate': 'partly', 'spot-repair': 'partly', 'scuff-and-recoat': 'partly', 'scuff-and-gel': 'partly', 'level-barrier-recoat': 'partly', 'strip-chemical': 'no', 'strip-mechanical': 'no', 'strip-both': 'no', 'refer': 'wholly' }
const PATINA: Record<RouteSlug, RouteVerdict['patina']> = { 'clean-and-wax': 'kept', 'amalgamate': 'kept', 'spot-repair': 'kept', 'scuff-and-recoat': 'partly', 'scuff-and-gel': 'partly', 'level-barrier-recoat': 'partly', 'strip-chemical': 'partly', 'strip-mechanical': 'lost', 'strip-both': 'lost', 'refer': 'kept' }

export interface RouteQuestion { facts: Facts, choice: Choice, rates: Rates, hours: Hours, now_ms: number, price?: (slug: string) => number | undefined }

/** The choice adapted to a route: `scuff-and-gel` is always coloured with gel, and a clear recoat never is. */
export function choiceFor(route: RouteSlug, choice: Choice): Choice {
  const colour = route === 'scuff-and-gel' ? 'gel-stain' : route === 'scuff-and-recoat' && choice.colour === 'gel-stain' ? 'none' : choice.colour
  return { ...choice, route, colour }
}

/** One route judged, with its plan, hours, price and dates; with its fallback counted in where a gate may fail. */
export function judgeRoute(route: RouteSlug, q: RouteQuestion): RouteVerdict {
  const choice = choiceFor(route, q.choice)
  const plan = workOutPlan(q.facts, choice)
  const reasons = routeReasons(route, q.facts)
  for (const v of judgePlan({ facts: q.facts, choice, ...plan })) {
    if (v.severity === 'stop' || v.severity === 'forbidden') reasons.push(ruledOut(`${v.says[0]!.toUpperCase()}${v.says.slice(1)}. ${v.reason}`))
  }
  for (const group of groupsOf(q.facts)) {
    const budget = budgetOf(q.facts, group, choice)
    if (budget?.verdict === 'do-not-sand') reasons.push(doubtful(`Veneer ${round(budget.thickness_um / 1000, 1)} mm: ${Math.round(budget.takes_um)} µm to take, ${Math.round(budget.thickness_um - budget.reserve_um)} to spare. Pads instead of paper.`))
  }
  if (choice.house?.['old-film'] === 'strip' && COATS_OVER.includes(route)) reasons.push(doubtful('This house strips rather than coats an old film.'))
  if (choice.colour === 'lacquer-toner' && materialOf(choice.finish).role !== 'film') reasons.push(ruledOut('A toner lies in a film: choose a film finish, or a dye.'))
  if (reasons.length === 0) reasons.push(speaksFor(STRIPPING.includes(route) ? 'Nothing speaks against it, but a milder way may do.' : `The film holds (${filmName(q.facts)}) and nothing found speaks against it.`))
  const standing = reasons.some(r => r.standing === 'ruled-out') ? 'ruled-out' : reasons.some(r => r.standing === 'doubtful') ? 'doubtful' : 'possible'
  const unique = [...new Map(reasons.map(r => [r.says, r])).values()]

  const likely = estimate(plan.steps, q.rates, q.price)
  const gate = plan.steps.find(s => s.gate?.fallback)?.gate
  const fallback = gate ? workOutPlan(q.facts, choiceFor(gate.fallback!, choice), { prefix: 'f-', ask: false }) : null
  const worst = fallback ? addEstimates(estimate(lostAtGate(plan), q.rates, q.price), estimate(fallback.steps, q.rates, q.price)) : estimate(worstRound(plan).steps, q.rates, q.price)
  const base = { hours: q.hours, from_ms: q.now_ms }
  const last = (rows: { end_ms: number }[]) => Math.max(q.now_ms, ...rows.map(r => r.end_ms))
  const readyLikely_ms = last(forecast({ ...plan, ...base, by: 'likely' }))
  const lost = fallback ? last(forecast({ steps: lostAtGate(plan), waits: plan.waits, ...base, by: 'safe' })) : 0
  const readyWorst_ms = fallback ? last(forecast({ ...fallback, hours: q.hours, from_ms: lost, by: 'safe' })) : last(forecast({ ...worstRound(plan), ...base, by: 'safe' }))
  return {
    route, standing, reasons: unique, chance: chanceOfFailing(route, q.facts), chanceReasons: chanceReasons(route, q.facts), plan, likely, worst,
    likelyDays: Math.ceil((readyLikely_ms - q.now_ms) / DAY_MS), worstDays: Math.ceil((readyWorst_ms - q.now_ms) / DAY_MS), readyLikely_ms, readyWorst_ms,
    reversible: REVERSIBLE[route], patina: PATINA[route], hazards: [...new Set(plan.steps.flatMap(st => st.cautions))], gates: plan.steps.flatMap(st => st.gate ? [st.gate] : []),
    film_um: sumOf(plan.steps.filter(st => st.kind === 'coat'), st => dryFilm_um(materialOf(st.product!))),
  }
}

/** The plan with its second round of stripper, where it has one. */
function worstRound(plan: Plan): Plan {
  return { ...plan, steps: plan.steps.map(s => ['strip', 'scrape'].includes(s.kind) ? { ...s, attended_min: s.attended_min * 2, amount_ml: s.amount_ml === null ? null : s.amount_ml * 2 } : s) }
}

export interface RouteAdvice { verdicts: RouteVerdict[], advised: RouteSlug | null }

/** All routes, least invasive first; advised is the least invasive that is possible, else the first doubtful. */
export function judgeRoutes(q: RouteQuestion): RouteAdvice {
  const verdicts = ROUTES.map(route => judgeRoute(route, q))
  const advised = verdicts.find(v => v.standing === 'possible') ?? verdicts.find(v => v.standing === 'doubtful') ?? null
  return { verdicts, advised: advised?.route ?? null }
}

/** The next less invasive route than the chosen one that is not ruled out, or null. */
export const lessInvasive = (verdicts: readonly RouteVerdict[], chosen: RouteSlug): RouteVerdict | null =>
  verdicts.slice(0, ROUTES.indexOf(chosen)).findLast(v => v.standing !== 'ruled-out') ?? null

export interface FinishLine { finish: Finish, standing: Standing, why: string | null, durability: number, repairable: number, yellows: boolean, coats: number, total_minor: number, handle_d: number, use_d: number, voc_g: number }

/**
 * Every finish on this piece under one route, beside each other: what it stands and costs, when it may be used, what it gives off.
 * Durability and repairability 1–5 and VOC are shop defaults; any fully cured finish may touch food, by its label.
 */
export function compareFinishes(q: RouteQuestion): FinishLine[] {
  return FINISHES.map((finish) => {
    const m = materialOf(finish)
    const verdict = judgeRoute(q.choice.route, { ...q, choice: { ...q.choice, finish } })
    const own = verdict.plan.steps.filter(st => st.product === finish && st.amount_ml !== null)
    return {
      finish, standing: verdict.standing, why: verdict.reasons.find(r => r.standing === verdict.standing && r.standing !== 'possible')?.says ?? null, durability: m.durability, repairable: m.repairable, yellows: m.traits.includes('yellows'),
      coats: own.filter(st => ['coat', 'oil-on', 'wax'].includes(st.kind)).length, total_minor: verdict.likely.total_minor, handle_d: verdict.likelyDays, use_d: verdict.likelyDays + m.cure_d[1], voc_g: sumOf(own, st => (st.amount_ml! / 1000) * m.voc_g_l),
    }
  })
}
