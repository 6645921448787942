/** Stages of the finish: oil under shellac, sealers, coats, oil, wax, rubbing out. */
import { P } from '../../abrasives'
import { isBare } from '../../acts'
import type { RouteSlug } from '../../build'
import { coatsForFilm } from '../../coverage'
import { materialOf, type Material } from '../../materials'
import { chanceOfFailing } from '../chances'
import { type Bench, dry, gritOf } from './bench'
import { shellac } from './colour'

export function oilUnderShellac(b: Bench) {
  const oil = b.house['oil-under-shellac']
  const shellacs = ['dewaxed-shellac', 'shellac-brushed']
  if (oil === 'none' || !isBare(b.s) || b.choice.colour !== 'none' || !shellacs.includes(b.choice.finish)) return
  const product = oil === 'raw' ? 'raw-linseed' : 'boiled-linseed'
  b.put(390, 'oil-on', 'deepens the figure under shellac', {
    product,
    method: 'rag',
    coat: 1,
    fields: { as: 'under-shellac' },
  })
  b.put(392, 'oil-off', 'what stays on floats up into the shellac', { product, method: 'rag', coat: 1 })
}

/** A barrier between what was there and the topcoat, and a look at it. */
export function barrier(b: Bench) {
  if (b.s.contamination !== 'washed' || materialOf(b.choice.finish).role !== 'film') return
  shellac(b, 400, 'against-contamination', 'a barrier between what was there and the topcoat')
  b.put(405, 'gate', 'a gate before the topcoat', {
    gate: {
      slug: 'barrier-clear',
      look: 'Raking light on the dry barrier.',
      fails: 'Craters or fish eyes.',
      fallback: null,
      chance: 0.3,
    },
  })
}

/** What a film under the topcoat needs between it and the wood. */
function sealer(b: Bench, m: Material) {
  const top = b.s.films.at(-1)
  const meltable = top && ['shellac', 'nitrocellulose-lacquer'].includes(top.slug)
  if (m.base === 'lacquer' && top?.found && !meltable)
    shellac(b, 480, 'under-lacquer', 'lacquer solvent wrinkles an oil film')
  if (m.base === 'water' && b.choice.fill === 'paste-filler' && b.s.filler)
    shellac(b, 478, 'over-filler', 'oil filler under a waterborne coat wants three days, or shellac between')
  if (m.traits.includes('catalysed') && isBare(b.s))
    b.put(480, 'coat', "two-part films hold on vinyl or the maker's own sealer", {
      product: 'vinyl-sealer',
      method: 'spray',
      coat: 1,
      fields: { as: 'sealer' },
    })
}

function wax(b: Bench, m: Material) {
  const of = m.coats[1]
  for (let coat = 1; coat <= of; coat++)
    b.put(500 + coat * 10, 'wax', 'thin, hazed, buffed', { product: m.slug, method: 'rag', coat, fields: { of } })
}

function oil(b: Bench, m: Material, of: number) {
  const why =
    m.slug === 'hardwax-oil-2c' ? 'one coat: a second finds nothing to hold on' : 'keep it wet until it is wiped'
  for (let coat = 1; coat <= of; coat++) {
    const more = { product: m.slug, method: 'rag' as const, coat, fields: { of } }
    b.put(500 + coat * 10, 'oil-on', why, more)
    b.put(505 + coat * 10, 'oil-off', 'what stays on goes sticky', more)
  }
}

/** Routes that lay a coat on an old film with nothing but a scuff between. */
const ON_OLD_FILM: readonly RouteSlug[] = ['scuff-and-recoat', 'scuff-and-gel']

function coats(b: Bench, m: Material, of: number) {
  const grit = m.betweenCoats_P === 320 ? gritOf(b.house['between-coats']) : m.betweenCoats_P
  for (let coat = 1; coat <= of; coat++) {
    const order = 500 + coat * 10
    const dye = b.s.inWood.findLast(w => w.role === 'dye')
    const bleeds = coat === 1 && isBare(b.s) && dye?.base === m.base
    if (coat > 1 && grit && b.s.openColour === null)
      b.put(order - 5, 'sand-coat', 'grip and nibs, edges left alone', { grits: [P(grit)], method: dry(b, 'hand') })
    const why =
      coat === of ? `the last coat sets the sheen: ${b.facts.sheen}` : 'thin, on the wet edge, then left alone'
    b.put(order, 'coat', why, {
      product: m.slug,
      method: m.transfer < 0.9 || bleeds ? 'spray' : 'brush',
      coat,
      fields: { of },
    })
    if (coat === 1 && ON_OLD_FILM.includes(b.choice.route))
      b.put(order + 2, 'gate', 'a film that was only scuffed may still let go', {
        gate: {
          slug: 'adhesion',
          look: 'Raking light over the dry coat; thumbnail and tape on a hidden place.',
          fails: 'It crawls, wrinkles, or comes off with the tape.',
          fallback: 'strip-chemical',
          chance: chanceOfFailing(b.choice.route, b.facts),
        },
      })
  }
}

export function finish(b: Bench) {
  const { choice, facts, house } = b
  const m = materialOf(choice.finish)
  const rubbed = facts.sheen === 'gloss' || (facts.sheen !== 'matt' && house['satin-by'] === 'rub')
  const gloss = choice.route !== 'amalgamate' && choice.finish === 'nitrocellulose-lacquer' && rubbed
  if (m.role === 'wax') return wax(b, m)
  sealer(b, m)
  const usual = gloss ? m.coats[1] : m.coats[0]
  const wanted = choice.film_um && m.role === 'film' ? coatsForFilm(m, choice.film_um) : usual
  const of = choice.route === 'amalgamate' ? Number(m.meltsIn) : wanted
  if (m.role === 'oil') oil(b, m, of)
  else coats(b, m, of)
  if (gloss)
    b.put(800, 'rub-out', 'a film rubbed too early shrinks and shows scratches', {
      grits: [P(1200)],
      method: 'wet',
      fields: { sheen: facts.sheen },
    })
}
