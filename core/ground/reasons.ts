/** What speaks for and against each route, from findings, film, wish and hazards. */
import {
  type Facts,
  type RouteSlug,
  type FindingKind,
  findingsOf,
  MELTS,
  type Finding,
  finishOn,
  groupsOf,
  isFound,
  leadSuspected,
  NO_FILM,
  RENEWED_WITH,
  shareOf,
  STRIPPING,
  underWax,
  wetOnly,
} from '../piece'
import { isFlat, round } from '../units'
import { asItStandsReasons, cleanAndWaxReasons, polishReasons, renewReasons } from './inPlace'
import { BADLY, doubtful, extent, filmName, layerName, type RouteReason, ruledOut, speaksFor, words } from './reason'

/** Worn or crazed over more than this share of the faces counts as all over. Shop default. */
const ALL_OVER = 0.15
/** A finish less certain than this is tested again (shop default). */
const SURE = 0.7

/** Reasons that any route keeping the old film shares. */
function keepsFilm(facts: Facts): RouteReason[] {
  const reasons: RouteReason[] = []
  const peeling = findingsOf(facts, 'peeling')[0]
  if (peeling) reasons.push(ruledOut(`Peeling, ${extent(facts, peeling)}: what does not hold cannot carry a new coat.`))
  if (facts.tone === 'lighter')
    reasons.push(ruledOut('The client wants it lighter; the old colour stays under this route.'))
  for (const f of broken(facts))
    reasons.push(ruledOut(`${words(f.kind)}, ${extent(facts, f)}: a film that is broken all over is not coated over.`))
  for (const group of groupsOf(facts)) {
    const top = underWax(facts, group)
    const where = facts.finishes.length > 1 ? ` on finish ${group.finishGroup}` : ''
    if (top?.finish === 'wax') reasons.push(ruledOut(`The finish${where} is wax: nothing holds on it.`))
    else if (finishOn(facts, group)[0]?.finish === 'wax')
      reasons.push(doubtful(`Wax lies on the film${where}: it must come off completely first.`))
    if (top && NO_FILM.includes(top.finish))
      reasons.push(ruledOut(`There is no film to keep${where} (${layerName(top)}).`))
    if (!top || top.certainty < SURE)
      reasons.push(
        doubtful(`The film${where} is not known for sure (${top ? layerName(top) : filmName(facts)}). Test again.`),
      )
  }
  const soft = findingsOf(facts, 'soft-film', 'print').find(f => f.grade >= BADLY && shareOf(facts, f.kind) <= ALL_OVER)
  if (soft)
    reasons.push(doubtful(`${words(soft.kind)}, ${extent(facts, soft)}: no coat hardens on it; off with it there.`))
  const iron = findingsOf(facts, 'black-ring').find(f => f.wish === 'mend')
  if (iron) {
    const says = `Black ring, ${extent(facts, iron)}: it lies in the wood; under a film that stays it stays too.`
    reasons.push(iron.grade >= BADLY && facts.tone !== 'darker' ? ruledOut(says) : doubtful(says))
  }
  if (isFound(facts, 'dirt-and-wax'))
    reasons.push(doubtful('Dirt and wax were found; they must come off completely first.'))
  return reasons
}
/** What breaks a film, where it does so at least so badly. */
const BREAKS: readonly FindingKind[] = ['coarse-film', 'crazing', 'worn-through', 'soft-film', 'print']
/** What breaks the film over much of the faces: a new coat shows it, or lets go with it. */
const broken = (facts: Facts): Finding[] =>
  BREAKS.flatMap(kind => findingsOf(facts, kind).slice(0, 1)).filter(
    f => f.grade >= BADLY && shareOf(facts, f.kind) > ALL_OVER,
  )
const ROUGH: readonly FindingKind[] = ['runs', 'brush-marks', 'orange-peel', 'overspray']
/** Spots on more than this share of the faces are no longer few. Shop default. */
const FEW = 0.05
export const COATS_OVER: readonly RouteSlug[] = ['scuff', 'level-barrier-recoat']

/** Where no wood is worked: metal, cane and what is taken out have work of their own on any route. */
function noWood(route: RouteSlug, facts: Facts): RouteReason[] {
  if (!facts.faces.some(f => f.scope === 'other'))
    return [ruledOut('No face is in scope. Add the faces that are to be refinished.')]
  return route === 'as-it-stands'
    ? [speaksFor('No wood is worked here; what is no wood has steps of its own.')]
    : [ruledOut('No wood is worked here.')]
}

/** Stripping bare wood: only for the colour that somebody put on it. */
function bareAlready(facts: Facts): RouteReason[] {
  if (!isFound(facts, 'unknown-stain')) return [ruledOut('The wood is bare: there is nothing to take off.')]
  return facts.tone === 'same'
    ? [doubtful('The wood is bare: this takes off only the stain of unknown kind.')]
    : [speaksFor('The stain of unknown kind comes off, as far as it has not gone in.')]
}

/** A scuffed film under gel, which hides scratches and goes darker. */
function underGel(facts: Facts): RouteReason[] {
  const worn = findingsOf(facts, 'worn-through')[0]
  const reasons: RouteReason[] = [...keepsFilm(facts)]
  if (facts.tone !== 'darker')
    reasons.push(
      facts.tone === 'same'
        ? doubtful('Gel stain goes darker; the client wants the same colour.')
        : doubtful('Gel stain goes darker only.'),
    )
  else reasons.push(speaksFor('The client wants it darker, and gel hides scratches.'))
  if (worn && worn.grade >= 4)
    reasons.push(doubtful(`Worn through, ${extent(facts, worn)}: gel takes differently on bare wood.`))
  return reasons
}

/** A scuffed film under a clear coat, which shows what lies below. */
function underClear(facts: Facts): RouteReason[] {
  const worn = findingsOf(facts, 'worn-through')[0]
  const rough = findingsOf(facts, ...ROUGH)
  const reasons: RouteReason[] = [...keepsFilm(facts)]
  if (worn)
    reasons.push(
      worn.grade >= 3 || shareOf(facts, 'worn-through') > ALL_OVER
        ? ruledOut(`Worn through, ${extent(facts, worn)}: a clear coat shows every bare patch; gel stain hides them.`)
        : doubtful(`Worn through, ${extent(facts, worn)}: the bare patches need colour first.`),
    )
  const rise = rough.find(f => f.grade >= BADLY)
  if (rise && shareOf(facts, rise.kind) > ALL_OVER)
    reasons.push(ruledOut(`${words(rise.kind)}, ${extent(facts, rise)}: it shows through a new coat; level it first.`))
  else if (rise) reasons.push(doubtful('Drips or brush marks stay under a new coat.'))
  const crazed = findingsOf(facts, 'crazing')[0]
  if (crazed)
    reasons.push(
      crazed.grade >= 3
        ? ruledOut(`Crazing, ${extent(facts, crazed)}: it comes through a new coat.`)
        : doubtful('Light crazing may come through.'),
    )
  if (facts.tone === 'darker')
    reasons.push(doubtful('A clear coat alone does not make it darker: choose gel stain as its colour.'))
  if (facts.tone === 'match')
    reasons.push(doubtful('To match, colour lies between scuff and clear coat: choose a toner or a glaze.'))
  if (isFound(facts, 'water-beads', 'fish-eyes'))
    reasons.push(doubtful('Contamination was found: wash, test, barrier.'))
  return reasons
}

/** Reasons from the findings and the wish, for or against one route; `gelled`: gel is laid on it. */
export function routeReasons(route: RouteSlug, facts: Facts, gelled = false): RouteReason[] {
  const rough = findingsOf(facts, ...ROUGH)
  const reasons: RouteReason[] = []
  if (groupsOf(facts).length === 0) return noWood(route, facts)
  const top = groupsOf(facts).map(g => underWax(facts, g))
  const melts = top.length > 0 && top.every(l => l && MELTS.includes(l.finish))
  const tested = top.flatMap(l => l ?? [])
  const allBare = top.length > 0 && top.every(l => l?.finish === 'none')
  const untested = () => {
    if (tested.length < top.length) reasons.push(doubtful('No finish test yet: test it before anything is decided.'))
  }
  const oiled = () => {
    if (tested.length && tested.every(l => RENEWED_WITH[l.finish]))
      reasons.push(doubtful('Oil and wax are renewed in place; stripper is for what renewing does not mend.'))
  }
  const tried = (how: 'stripper' | 'sanding') => {
    const pace = facts.pace[how]
    if (pace !== null) reasons.push(speaksFor(`The timed patch counts: ${round(pace)} min for each flat m².`))
  }
  const meltsIn = () => {
    if (!melts)
      reasons.push(
        top.every(l => l)
          ? ruledOut(`Its own solvent does not melt this film (${filmName(facts)}).`)
          : doubtful('The film is not known: only shellac and lacquer melt into themselves.'),
      )
    if (facts.tone !== 'same') reasons.push(ruledOut('The colour stays as it is under this route.'))
  }
  switch (route) {
    case 'clean-and-wax':
      reasons.push(...cleanAndWaxReasons(facts))
      break
    case 'as-it-stands':
      reasons.push(...asItStandsReasons(facts))
      break
    case 'renew':
      reasons.push(...renewReasons(facts))
      break
    case 'polish':
      reasons.push(...polishReasons(facts))
      break
    case 'amalgamate': {
      meltsIn()
      const worn = findingsOf(facts, 'worn-through', 'peeling')[0]
      if (worn)
        reasons.push(
          worn.grade >= 3
            ? ruledOut(`${words(worn.kind)}, ${extent(facts, worn)}: there is no film left to flow.`)
            : doubtful(`${words(worn.kind)}, ${extent(facts, worn)}: those places want a repair of their own.`),
        )
      const flows = findingsOf(facts, 'crazing', 'white-ring', 'heat-mark')[0]
      const share = shareOf(facts, 'crazing', 'white-ring', 'heat-mark')
      if (flows && flows.kind !== 'crazing' && share > 0 && share <= FEW)
        reasons.push(
          doubtful(`${words(flows.kind)}, ${extent(facts, flows)}: a spot; let it flow there, not all over.`),
        )
      reasons.push(
        flows
          ? speaksFor(`${words(flows.kind)}, ${extent(facts, flows)}: it closes when the film flows.`)
          : doubtful('Nothing was found that flowing would close.'),
      )
      break
    }
    case 'spot-repair': {
      meltsIn()
      const spots = findingsOf(
        facts,
        'worn-through',
        'veneer-chipped',
        'white-ring',
        'black-ring',
        'sanded-through',
        'heat-mark',
      )
      if (spots.length === 0) reasons.push(doubtful('There is no spot to repair: mark each on its face first.'))
      const share = shareOf(facts, ...spots.map(f => f.kind))
      if (share > FEW)
        reasons.push(ruledOut(`Spots cover ${Math.round(share * 100)} % of the faces: that is all over.`))
      const overall = findingsOf(facts, 'peeling', 'crazing', 'orange-peel', 'coarse-film', 'fish-eyes')[0]
      if (overall) reasons.push(ruledOut(`${words(overall.kind)}, ${extent(facts, overall)}: it is not a spot.`))
      break
    }
    case 'strip-mechanical': {
      if (wetOnly(facts)) reasons.push(ruledOut('Dust is forbidden here until the hazards are settled.'))
      if (facts.keepPatina) reasons.push(ruledOut('The patina is kept: nothing is sanded off.'))
      const shaped = groupsOf(facts)
        .flatMap(g => g.faces)
        .find(f => !isFlat(f))
      if (shaped)
        reasons.push(
          shaped.shape === 'profiled'
            ? doubtful(`${shaped.part}, ${shaped.name} is profiled.`)
            : ruledOut(`${shaped.part}, ${shaped.name} is ${shaped.shape}: a scraper does not reach it.`),
        )
      if (groupsOf(facts).some(g => g.substrate === 'veneer'))
        reasons.push(doubtful('Veneer: only as far as its budget goes.'))
      if (isFound(facts, 'several-layers', 'runs'))
        reasons.push(doubtful('Thick old film: paper clogs; stripper is quicker.'))
      if (allBare) reasons.push(...bareAlready(facts))
      untested()
      oiled()
      tried('sanding')
      break
    }
    case 'strip-both': {
      if (wetOnly(facts)) reasons.push(ruledOut('Sanding dry is forbidden here until the hazards are settled.'))
      if (allBare) reasons.push(...bareAlready(facts))
      untested()
      oiled()
      tried('stripper')
      if (facts.keepPatina) reasons.push(doubtful('Patina: strip to 90–95 %, stop, and rub with pads.'))
      else if (facts.age === 'keep' && ['before-1850', '1850-1925'].includes(facts.period))
        reasons.push(doubtful('An old piece whose age is kept: paper goes no further here than after stripper alone.'))
      break
    }
    case 'refer': {
      const grave = facts.bans.includes('opening') || facts.bans.includes('dry-brushing')
      const early = facts.keepPatina && facts.period === 'before-1850'
      if (grave) reasons.push(speaksFor('Hazards stand in the way that want a conservator or a licensed firm.'))
      else if (early)
        reasons.push(doubtful('An early piece whose surface is kept: ask a conservator when its finish is original.'))
      else if (leadSuspected(facts.lead))
        reasons.push(doubtful('Lead is not ruled out: local rules may ask for a licensed firm.'))
      else reasons.push(doubtful('Nothing asks for a conservator.'))
      break
    }
    case 'scuff':
      reasons.push(...(gelled ? underGel(facts) : underClear(facts)))
      break
    case 'level-barrier-recoat': {
      reasons.push(...keepsFilm(facts))
      const craters = findingsOf(facts, 'fish-eyes')[0]
      if (craters)
        reasons.push(speaksFor(`Fish eyes, ${extent(facts, craters)}: washed, levelled, and barred with shellac.`))
      if (rough.length)
        reasons.push(speaksFor(`${words(rough[0]!.kind)}, ${extent(facts, rough[0]!)}: levelling takes it away.`))
      else if (!craters) reasons.push(doubtful('Nothing was found that asks for levelling; scuffing is milder.'))
      if (isFound(facts, 'several-layers'))
        reasons.push(doubtful('Several layers: cutting through them leaves halos that show only under the sealer.'))
      const shaped = groupsOf(facts)
        .flatMap(g => g.faces)
        .filter(f => !isFlat(f))
      if (shaped.length)
        reasons.push(doubtful(`${shaped[0]!.part}, ${shaped[0]!.name} is ${shaped[0]!.shape}: it cannot be levelled.`))
      break
    }
    case 'strip-chemical': {
      if (allBare) reasons.push(...bareAlready(facts))
      untested()
      oiled()
      if (isFound(facts, 'several-layers')) reasons.push(speaksFor('Several layers come off together.'))
      const failing = findingsOf(facts, 'peeling', 'worn-through', 'crazing')[0]
      if (failing)
        reasons.push(speaksFor(`${words(failing.kind)}, ${extent(facts, failing)}: it comes off with the film.`))
      if (facts.tone === 'lighter') reasons.push(speaksFor('The old colour comes off, so that it can become lighter.'))
      if (facts.bans.includes('dry-sanding') && !leadSuspected(facts.lead))
        reasons.push(doubtful('A hazard is not ruled out: wet methods only.'))
      if (leadSuspected(facts.lead))
        reasons.push(
          doubtful(
            `Lead ${facts.lead === 'yes' ? 'was found' : 'is not ruled out'}: wet methods only, and local ` +
              'rules on the waste.',
          ),
        )
      tried('stripper')
      if (facts.keepPatina) reasons.push(doubtful('Patina: strip to 90–95 %, stop, and rub with pads.'))
      break
    }
  }
  if (STRIPPING.includes(route) && facts.tone === 'match' && reasons.length === 0)
    reasons.push(doubtful('A film that holds can be toned to match.'))
  const unsure = tested.find(l => l.certainty < SURE)
  if (unsure && STRIPPING.includes(route) && reasons.length === 0)
    reasons.push(doubtful(`The film is not known for sure (${layerName(unsure)}): tested again, a milder way may do.`))
  return reasons
}
