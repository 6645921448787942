/** Works a plan out of surface states: each stage is added only where the state of a face asks for it. */
import { ladder_P, STOP_P, veneerBudget, type StopFor, type VeneerBudget } from '../abrasives'
import { need_ml } from '../coverage'
import { mendingOf } from '../examine/damage'
import { materialOf } from '../layers/materials'
import { leadSuspected, type Caution } from '../safety'
import { round, sumOf } from '../units'
import { speciesOf, veneerThickness } from '../wood'
import { chanceOfFailing } from './chances'
import { finishOn, groupsOf, wetOnly, type Choice, type Facts, type FindingKind, type Group } from './facts'
import { attended_min, SETUP_MIN, type Gate, type Method, type Step, type StepKind } from './steps'
import { foundSurface, isBare, leave, walk, type Surface } from './surface'
import { waitsBetween, type Wait } from './waits'

export interface Plan { steps: Step[], waits: Wait[], budgets: { group: Group, budget: VeneerBudget }[] }

interface Draft { order: number, kind: StepKind, title: string, product?: string, grits?: number[], method?: Method, coat?: number, passes?: number, why: string, gate?: Gate }

const isJoint = (kind: FindingKind) => kind === 'loose-leg' || kind === 'open-joint'
const HARD_FILMS = ['oil-polyurethane', 'catalysed', 'waterborne']

const stopFor = (choice: Choice): StopFor =>
  choice.colour !== 'none' ? 'stain' : choice.finish === 'varnish-oil' ? 'varnish-oil' : 'film'

/** The dry ladder for bare wood of this group, P scale. Patina: nothing coarser than P180. */
export function bareLadder(facts: Facts, group: Group, choice: Choice): number[] {
  const first = facts.keepPatina ? 180 : group.substrate === 'veneer' ? 120 : 100
  return ladder_P(first, STOP_P[stopFor(choice)].take).map(g => g.number)
}

/** The veneer sum of a group under this choice; null where the wood is solid. Not measured: the thin end of what its age used. */
export function budgetOf(facts: Facts, group: Group, choice: Choice): VeneerBudget | null {
  if (group.substrate !== 'veneer' || choice.route !== 'strip-chemical' || wetOnly(facts)) return null
  const ladder = bareLadder(facts, group, choice).map(number => ({ scale: 'P' as const, number }))
  return veneerBudget({ thickness_mm: veneerThickness(group.veneer_mm, facts.period).mm, ladder })
}

function planGroup(facts: Facts, choice: Choice, group: Group, start: Surface): Draft[] {
  const drafts: Draft[] = []
  let s = start
  const put = (draft: Draft) => {
    drafts.push(draft)
    s = leave({ ...draft, key: '', faces: [], product: draft.product ?? null, grits: draft.grits ?? [] } as unknown as Step, s)
  }
  const lead = wetOnly(facts)
  const oldFilm = () => s.films.some(f => f.found)
  const dry = (machine: Method): Method => lead && (oldFilm() || isBare(s)) ? 'wet' : machine

  if (s.dirty) put({ order: 100, kind: 'wash', title: 'Wash with mild soap and water', product: 'mild-soap', method: 'rag', why: 'grease, wax and polish come off before any abrasion, or the paper drives them in' })
  if (start.waxed) put({ order: 105, kind: 'solvent-wash', title: 'Take wax off with white spirit', product: 'white-spirit', method: 'rag', why: 'nothing holds on wax' })
  const washContamination = (order: number) => {
    if (s.contamination !== 'untreated' && s.contamination !== 'washed') return
    put({ order, kind: 'solvent-wash', title: 'Solvent wash against contamination', product: 'white-spirit', method: 'rag', passes: 2, why: 'water beaded here: silicone, wax or oil comes back as fish eyes' })
    put({ order: order + 1, kind: 'gate', title: 'Wetting test: does water spread evenly?', why: 'stripping does not prove contamination gone',
      gate: { slug: 'wetting-test', look: 'Wet the surface and look along it in raking light.', fails: 'Water still beads or pools in patches.', fallback: null, chance: 0.3 } })
  }

  const broken = mendingOf({ ...facts, faces: group.faces }).map(m => m.kind)
  if (broken.some(isJoint)) put({ order: 112, kind: 'joint', title: 'Glue what is loose', why: 'what is loose is made fast before anything is stripped or sanded' })
  const mend = (order: number, why: string) => {
    if (broken.some(k => !isJoint(k))) put({ order, kind: 'mend', title: 'Mend what was found', method: 'hand', why })
  }

  switch (choice.route) {
    case 'scuff-and-recoat':
    case 'scuff-and-gel': {
      washContamination(110)
      const use: StopFor = choice.colour === 'gel-stain' ? 'gel-over-film' : 'recoat-film'
      mend(140, 'mended before the film is scuffed; what carries finish takes epoxy, not wood glue')
      put({ order: 150, kind: 'scuff', title: `Scuff P${STOP_P[use].take}${lead ? ', wet' : ' by hand'}`, grits: [STOP_P[use].take], method: dry('hand'), why: STOP_P[use].why })
      put({ order: 160, kind: 'clean-off', title: 'Vacuum and wipe', method: 'rag', why: 'dust under a coat stays there' })
      break
    }
    case 'level-barrier-recoat': {
      washContamination(110)
      mend(140, 'mended before the film is levelled')
      put({ order: 150, kind: 'level', title: 'Wet-sand the old film level, P320 then P400', grits: [320, 400], method: 'wet', why: 'drips, brush marks and orange peel go before the barrier' })
      put({ order: 160, kind: 'clean-off', title: 'Clean and let the water go', method: 'rag', why: 'slurry under a sealer shows' })
      for (const coat of [1, 2]) put({ order: 170 + coat, kind: 'coat', title: `Dewaxed shellac barrier, coat ${coat} of 2`, product: 'dewaxed-shellac', method: 'brush', coat, why: 'keeps what is below from what comes above' })
      put({ order: 175, kind: 'gate', title: 'Judge the sealer', why: 'halos and stains show only now', gate: {
        slug: 'sealer-judged', look: 'Raking light, whole top: halos, dark stains coming up, orange peel coming back.', fails: 'Halos, dark stains or orange peel show in the sealer.', fallback: 'strip-chemical', chance: chanceOfFailing(choice.route, facts) } })
      put({ order: 176, kind: 'scuff', title: lead ? 'Scuff the sealer P320, wet' : 'Scuff the sealer P320', grits: [320], method: dry('hand'), why: 'grip for the next coat' })
      put({ order: 177, kind: 'clean-off', title: 'Vacuum and wipe', method: 'rag', why: 'dust under a coat stays there' })
      break
    }
    case 'strip-chemical': {
      if (!isBare(s)) {
        put({ order: 120, kind: 'cover', title: 'Cover and tape, 6 mm in from the edges', method: 'none', why: 'nothing runs where it must not' })
        if (!lead && finishOn(facts, group).some(l => HARD_FILMS.includes(l.finish))) put({ order: 125, kind: 'roughen', title: 'Roughen the hard film P80', grits: [80], method: 'hand', why: 'lets the stripper in' })
        put({ order: 130, kind: 'strip', title: 'Stripper on, thick and even', product: 'solvent-gel-stripper', method: 'brush', why: 'works as long as it is wet' })
        put({ order: 135, kind: 'scrape', title: 'Scrape off', method: 'hand', why: 'low angle, rounded corners, no burr' })
        put({ order: 140, kind: 'wash-off', title: 'Wash off, three times and once more clean', product: 'white-spirit', method: 'rag', passes: 3, why: 'residue in corners stops the next film from drying' })
      }
      washContamination(145)
      mend(190, 'left a little proud, and cut flush by the grits that follow')
      break
    }
  }

  if (isBare(s)) {
    const budget = budgetOf(facts, group, choice)
    const soft = group.faces.every(f => f.shape === 'turned' || f.shape === 'carved')
    if (lead || budget?.verdict === 'do-not-sand') {
      put({ order: 200, kind: 'pad', title: lead ? 'Rub with a wet non-woven pad' : 'Rub with a non-woven pad', grits: [STOP_P[stopFor(choice)].take], method: lead ? 'wet' : 'hand',
        why: lead ? `${leadSuspected(facts.lead) ? 'lead is not ruled out' : 'a hazard is not ruled out'}: no dry sanding` : 'the veneer has nothing to spare for paper' })
    }
    else {
      const grits = bareLadder(facts, group, choice)
      const byHand = soft || group.substrate === 'veneer'
      put({ order: 200, kind: 'sand', title: `Sand ${grits.map(g => `P${g}`).join(' → ')}${byHand ? ' by hand' : ', last grit by hand'}`, grits, method: byHand ? 'hand' : 'random-orbit',
        why: `stop at P${grits.at(-1)}: ${STOP_P[stopFor(choice)].why}` })
    }
    put({ order: 210, kind: 'clean-off', title: 'Vacuum and wipe', method: 'rag', why: 'dust in the pores greys the finish' })
  }

  const wet = facts.wet.filter(w => group.faces.some(f => f.id === w.faceId))
  if (wet.length) {
    const most = round(Math.min(...wet.map(w => w.most_pct)), 1)
    put({ order: 290, kind: 'gate', title: `Moisture: ${most} % at the most`, why: `about ${Math.ceil(Math.max(...wet.map(w => w.likely_d)))} days from the last reading until the wood is near equilibrium`,
      gate: { slug: 'moisture', look: 'Measure where it was measured before.', fails: `More than ${most} %: let it stand and measure again.`, fallback: null, chance: 0.2 } })
  }

  if (choice.colour === 'pigment-stain') {
    const wanted = choice.conditioner === 'auto' ? (speciesOf(group.species).blotches ? 'oil-conditioner' : null) : choice.conditioner === 'none' ? null : choice.conditioner
    if (wanted) put({ order: 300, kind: 'conditioner', title: 'Conditioner on, wipe after 5 to 15 min', product: wanted, method: 'rag', coat: 1, why: `${speciesOf(group.species).name} takes stain in patches` })
    put({ order: 310, kind: 'stain', title: 'Stain on and wipe', product: 'pigment-stain', method: 'rag', coat: 1, why: 'the client\'s colour' })
  }
  if (choice.colour === 'gel-stain') put({ order: 310, kind: 'gel', title: 'Gel stain on, 3 min, wipe with the grain', product: 'gel-stain', method: 'rag', coat: 1, why: 'hides scratches and goes darker' })

  if (s.contamination === 'washed') {
    put({ order: 400, kind: 'coat', title: 'Dewaxed shellac barrier against contamination', product: 'dewaxed-shellac', method: 'brush', coat: 1, why: 'a barrier between what was there and the topcoat' })
    put({ order: 405, kind: 'gate', title: 'Fish eyes in the barrier?', why: 'a gate before the topcoat', gate: {
      slug: 'barrier-clear', look: 'Raking light on the dry barrier.', fails: 'Craters or fish eyes.', fallback: null, chance: 0.3 } })
  }
  putFinish(facts, choice, put, dry)
  return drafts
}

function putFinish(facts: Facts, choice: Choice, put: (d: Draft) => void, dry: (machine: Method) => Method) {
  const m = materialOf(choice.finish)
  const coats = m.coats[0]
  for (let coat = 1; coat <= coats; coat++) {
    const order = 500 + coat * 10
    if (m.role === 'oil') {
      put({ order, kind: 'oil-on', title: `Varnish oil on, coat ${coat} of ${coats}; feed thirsty spots at 10 to 15 min`, product: m.slug, method: 'rag', coat, why: 'keep it wet until it is wiped' })
      put({ order: order + 5, kind: 'oil-off', title: `Wipe all oil off, coat ${coat} of ${coats}`, method: 'rag', coat, why: 'what stays on goes sticky' })
      continue
    }
    if (coat > 1 && m.betweenCoats_P) put({ order: order - 5, kind: 'sand-coat', title: `Sand lightly P${m.betweenCoats_P}${dry('hand') === 'wet' ? ' wet,' : ''} and wipe`, grits: [m.betweenCoats_P], method: dry('hand'), why: 'grip and nibs, edges left alone' })
    put({ order, kind: 'coat', title: `${m.name[0]!.toUpperCase()}${m.name.slice(1)}, coat ${coat} of ${coats}`, product: m.slug, method: m.slug === 'nitrocellulose-lacquer' ? 'spray' : 'brush', coat,
      why: coat === coats ? `the last coat sets the sheen: ${facts.sheen}` : 'thin, on the wet edge, then left alone' })
  }
  if (choice.finish === 'nitrocellulose-lacquer' && facts.sheen === 'gloss')
    put({ order: 800, kind: 'rub-out', title: 'Level P1200 and rub out to gloss', grits: [1200], method: 'wet', why: 'a film rubbed too early shrinks and shows scratches' })
}

const DUSTY: readonly StepKind[] = ['scuff', 'level', 'strip', 'scrape', 'wash-off', 'pad', 'roughen', 'sand']

const cautionsOf = (draft: Draft, facts: Facts): Caution[] => {
  const m = draft.product ? materialOf(draft.product) : null
  const cautions: (Caution | false)[] = [
    wetOnly(facts) && DUSTY.includes(draft.kind) && (leadSuspected(facts.lead) ? 'lead' : 'poison'),
    (draft.kind === 'strip' || draft.kind === 'scrape') && 'sludge',
    draft.kind === 'strip' && 'skin',
    m !== null && m.base !== 'water' && 'solvent',
    m?.base === 'oil' && 'oily-rags',
    draft.kind === 'oil-off' && 'oily-rags',
    draft.method === 'spray' && 'spray',
    ['sand', 'sand-coat', 'scuff', 'roughen'].includes(draft.kind) && draft.method !== 'wet' && 'dust',
  ]
  return [...new Set(cautions.filter((c): c is Caution => c !== false))]
}

/** Liquid for one step, ml, from the areas of its faces. Null for a step without a product. */
export function amount_ml(step: Pick<Step, 'product' | 'coat' | 'passes' | 'faces' | 'kind'>, facts: Facts, bare: boolean): number | null {
  if (!step.product) return null
  const faces = facts.faces.filter(f => step.faces.includes(f.id))
  const material = materialOf(step.product)
  const need = (soft: boolean, area_m2: number) => area_m2 > 0 ? need_ml({ material, area_m2, coat: step.coat ?? 1, bareSoft: soft && bare && material.role === 'film' }) : 0
  const soft = faces.filter(f => speciesOf(f.species).softwood)
  const hard = faces.filter(f => !speciesOf(f.species).softwood)
  return (need(true, sumOf(soft, f => f.area_m2)) + need(false, sumOf(hard, f => f.area_m2))) * step.passes
}

/** Fills in minutes, amounts and waits of a list of steps; used after planning and after every change made by hand. */
export function completePlan(steps: readonly Step[], facts: Facts, choice: Choice, start: (g: Group) => Surface = g => foundSurface(facts, g)): Plan {
  const groups = groupsOf(facts)
  const bareAt = new Map<string, boolean>()
  for (const v of walk(steps, groups, start)) bareAt.set(v.step.key, (bareAt.get(v.step.key) ?? true) && isBare(v.before))
  const filled = steps.map((step) => {
    if (step.byHand) return step
    const faces = facts.faces.filter(f => step.faces.includes(f.id))
    const repairs = step.kind === 'joint' || step.kind === 'mend' ? mendingOf({ ...facts, faces }).filter(m => isJoint(m.kind) === (step.kind === 'joint')) : []
    if (repairs.length) return { ...step, title: `${step.kind === 'joint' ? 'Glue' : 'Mend'}: ${repairs.map(m => `${m.places} × ${m.kind.replaceAll('-', ' ')}`).join(', ')}`, attended_min: Math.ceil(SETUP_MIN + sumOf(repairs, m => m.minutes)) }
    return { ...step, attended_min: Math.ceil(attended_min(step, faces, facts.pace)), amount_ml: amount_ml(step, facts, bareAt.get(step.key) ?? false) }
  })
  const budgets = groups.flatMap((group) => {
    const budget = budgetOf(facts, group, choice)
    return budget ? [{ group, budget }] : []
  })
  return { steps: filled, waits: waitsBetween(filled, facts), budgets }
}

/**
 * The plan for a choice. `start` gives the surface to begin from (after a failed gate: the state it was left in),
 * `prefix` keeps step keys of a fallback apart. Steps that are alike on several groups become one.
 */
export function workOutPlan(facts: Facts, choice: Choice, options: { start?: (g: Group) => Surface, prefix?: string, ask?: boolean } = {}): Plan {
  const { start = (g: Group) => foundSurface(facts, g), prefix = '', ask = true } = options
  const merged = new Map<string, Step & { order: number }>()
  for (const group of groupsOf(facts)) {
    const faces = group.faces.map(f => f.id)
    for (const { order, ...d } of planGroup(facts, choice, group, start(group))) {
      const id = JSON.stringify([order, d.kind, d.product, d.grits, d.method])
      const same = merged.get(id)
      if (same) same.faces.push(...faces)
      else merged.set(id, {
        order, key: '', kind: d.kind, title: d.title, faces: [...faces], product: d.product ?? null, grits: d.grits ?? [], method: d.method ?? 'none', coat: d.coat ?? null,
        passes: d.passes ?? 1, attended_min: 0, amount_ml: null, cautions: cautionsOf({ order, ...d }, facts), why: d.why, gate: d.gate ?? null, byHand: false })
    }
  }
  const allFaces = groupsOf(facts).flatMap(g => g.faces.map(f => f.id))
  const node = (order: number, kind: StepKind, title: string, why: string): Step & { order: number } => ({
    order, key: '', kind, title, faces: allFaces, product: null, grits: [], method: 'none', coat: null, passes: 1, attended_min: 0, amount_ml: null, cautions: [], why, gate: null, byHand: false })
  const all = [...merged.values(), node(900, 'finish-up', 'Put together, look over, label', 'ready for the client')]
  if (ask) all.push(node(0, 'approval', 'Client\'s word on route and price', 'nothing is touched before the client said yes'))
  const counts = new Map<string, number>()
  const steps = all.sort((a, b) => a.order - b.order).map(({ order: _order, ...step }) => {
    const stem = prefix + [step.kind, step.coat].filter(Boolean).join('-')
    const n = (counts.get(stem) ?? 0) + 1
    counts.set(stem, n)
    return { ...step, key: n === 1 ? stem : `${stem}.${n}` }
  })
  return completePlan(steps, facts, choice, start)
}
