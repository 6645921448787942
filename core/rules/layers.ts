/** Rules for a surface that is composed freely: what lies where it does no good, and what must never meet. */
import { isCoarser, P } from '../abrasives'
import { does, firstAfter, isBare, type Visit } from '../acts'
import { reducer_pct } from '../materials'
import { coloursIn } from '../build'
import { isFound, STRIPPING } from '../piece'
import { speciesOf } from '../wood'
import { breach, COMMON, DAY_MIN, each, films, FLATTED, gap_min, hours, type Rule, tooSoon, top, unfit } from './rule'

const FINEST_BEFORE_DYE = P(220)
/** What gives toxic gas with household chlorine that was not rinsed out: acids and ammonia. */
const GAS_WITH_CHLORINE = ['oxalic-acid', 'ammonia', 'two-part-bleach']

/** Roles of what goes into the wood, or into its pores. */
const INTO_WOOD: readonly string[] = ['stain', 'dye', 'bleach', 'filler', 'conditioner']

/** Finishes for rooms: sun, rain and frost lift them. */
const FOR_ROOMS: readonly string[] = [
  ...(['dewaxed-shellac', 'shellac-brushed', 'nitrocellulose-lacquer', 'lacquer-sanding-sealer'] as const),
  ...(['waterborne-polyurethane', 'urethane-2c', 'wiping-varnish', 'hardwax-oil-2c', 'paste-wax'] as const),
]
const isFinish = (x: Visit) => does(x.step, 'finishes')

/** Minutes between passes of opaque colour (common practice). */
const FLASH_MIN = 5
const isOilColour = ({ product: m }: Visit) =>
  m?.base === 'oil' && (m.role === 'stain' || m.role === 'gel' || m.role === 'conditioner')
const covers = (x: Visit) => does(x.step, 'films') || x.step.kind === 'mask' || x.step.kind === 'cover'
/** Is what was laid there still without a film, and uncovered, when this later step comes? */
const staysOpen = (u: Visit, until: number): boolean => (firstAfter(u, covers)?.index ?? Infinity) >= until

export const LAYER_RULES: readonly Rule[] = [
  {
    slug: 'filler-on-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Filler holds in the open pores of bare or thinly sealed wood; on a film it lies on top and lifts.',
    mend: 'Fill before the film, or let coat after coat of the film fill the pores.',
    check: unfit('filler-on-film'),
  },
  {
    slug: 'oiled-wood-takes-no-more',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Oil fills the wood: stain, dye, bleach, filler and conditioner no longer go in.',
    mend: 'Colour, bleach and fill before the oil.',
    check: c =>
      each(c, v => {
        const oil = v.before.inWood.findLast(w => w.role === 'oil')
        const goesIn = does(v.step, 'soaks') || INTO_WOOD.includes(v.product?.role ?? '')
        return oil && goesIn && isBare(v.before) ? `${oil.slug.replaceAll('-', ' ')} has filled the wood` : null
      }),
  },
  {
    slug: 'repair-after-colour',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Repair filler put in after the colour or the finish shows as a spot of its own.',
    mend: 'Mend before the colour; after it use coloured wax or a burn-in fill.',
    check: c =>
      each(c, v => {
        const ours = v.before.films.some(f => !f.found)
        if (v.step.kind !== 'mend' || (v.before.openColour === null && !ours)) return null
        return ours ? 'repair filler over the new film' : 'repair filler over the new colour'
      }),
  },
  {
    slug: 'filler-colour-on-dyed-wood',
    severity: 'note',
    scope: 'plan',
    source: COMMON,
    reason: 'Over dyed wood the filler keeps the colour that it has, and dries paler than it looks.',
    mend: 'Tint it and try it on the same wood under the finish.',
    check: c =>
      each(c, v =>
        v.step.kind === 'fill' && v.before.inWood.some(w => w.role === 'dye' || w.role === 'stain')
          ? 'filler over coloured wood'
          : null,
      ),
  },
  {
    slug: 'oxalic-takes-out-stains-only',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Oxalic acid takes out marks of iron and water, not colour; its dust is toxic.',
    mend: 'Leave it out where there are no such marks; for paler wood take two-part bleach.',
    check: c =>
      isFound(c.facts, 'black-ring', 'white-ring')
        ? []
        : each(c, v => (v.step.product === 'oxalic-acid' ? 'no mark of iron or water was found' : null)),
  },
  {
    slug: 'lighter-needs-bleach',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Nothing clear or coloured makes wood lighter than it is bare.',
    mend: 'Bleach it, wash it pale, or tell the client that bare wood is as light as it gets.',
    check: c => {
      if (c.facts.tone !== 'lighter' || !STRIPPING.includes(c.buildUp.ground)) return []
      if (c.steps.some(s => s.kind === 'bleach' || s.kind === 'paint-wash')) return []
      const first = c.steps.find(s => does(s, 'colours') || does(s, 'finishes'))
      return first && coloursIn(c.buildUp.layers).length > 0
        ? [breach(first, 'colour where lighter was asked for')]
        : []
    },
  },
  {
    slug: 'bare-wood-too-fine-for-dye',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Wood sanded finer than P220 takes dye unevenly and pale.',
    mend: 'Stop at P180 to P220 before a dye.',
    check: c =>
      each(c, v =>
        v.step.kind === 'dye' &&
        isBare(v.before) &&
        // sanding filler back leaves its own fine grit, and not on the wood
        !v.before.inWood.some(w => w.role === 'filler') &&
        v.before.grit &&
        isCoarser(FINEST_BEFORE_DYE, v.before.grit)
          ? `${speciesOf(v.group.species).name} sanded finer than P220 under dye`
          : null,
      ),
  },
  {
    slug: 'chlorine-not-rinsed',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Household chlorine gives toxic gas with acid or ammonia.',
    mend: 'Rinse with much water and let it dry between the two. Local codes and licensed practice come first.',
    check: c =>
      c.visits.flatMap(v => {
        if (!GAS_WITH_CHLORINE.includes(v.step.product ?? '') || !v.product) return []
        const earlier = v.own.slice(0, v.nth)
        const chlorine = earlier.findLastIndex(u => u.step.product === 'household-chlorine')
        const rinsed = earlier.slice(chlorine + 1).some(u => u.step.kind === 'rinse')
        return chlorine >= 0 && !rinsed ? [breach(v.step, `${v.product.name} on chlorine that was not rinsed out`)] : []
      }),
  },
  {
    slug: 'opaque-flash',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Gas stays in an opaque film where the next pass comes before it has flashed off.',
    mend: 'Leave five minutes and more between thin passes.',
    check: c =>
      each(c, v => {
        const under = top(v.before)
        if (!films(v) || !v.product?.traits.includes('coloured') || under?.slug !== v.product.slug) return null
        const wait = c.waits.find(w => w.from === under.step && w.to === v.step.key)
        return wait && wait.min < FLASH_MIN
          ? tooSoon(wait.from, FLASH_MIN, `${hours(wait.min)} after the pass below it`)
          : null
      }),
  },
  {
    slug: 'lacquer-beside-fresh-oil',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Lacquer mist that falls on a fresh oil stain beside it bites into it.',
    mend: 'Let the stain dry 24 h, or mask its faces.',
    check: c => {
      if (!c.steps.some(s => s.method === 'spray')) return []
      const { visits, ...work } = c.whole()
      const mists = visits.filter(v => v.product?.base === 'lacquer' && v.step.method === 'spray')
      return mists.flatMap(v => {
        const fresh = visits.find(
          u => u.index < v.index && u.group !== v.group && isOilColour(u) && staysOpen(u, v.index),
        )
        const least = fresh ? gap_min(work, fresh.step.key, v.step.key) : DAY_MIN
        if (!fresh || least >= DAY_MIN) return []
        const says = `${v.product!.name} beside ${fresh.product!.name}, ${hours(least)} old`
        return [{ ...tooSoon(fresh.step.key, DAY_MIN, says), step: v.step.key }]
      })
    },
  },
  {
    slug: 'gloss-stays-clear',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Flatting in a film cannot be rubbed to gloss, and clouds it in depth.',
    mend: 'Build in gloss, and set the sheen with the last coat or by rubbing.',
    check: c =>
      each(c, v => {
        if (!films(v) || !FLATTED.test(v.product?.sheen ?? '') || v.step.fields.as) return null
        const rubbed = c.buildUp.ending === 'rubbed' && (c.facts.sheen === 'gloss' || c.facts.sheen === 'semi-gloss')
        if (rubbed) return `${v.product!.name} is flatted, and is to be rubbed to ${c.facts.sheen}`
        return (v.step.coat ?? 1) > 2 ? `coat ${v.step.coat} of a flatted film` : null
      }),
  },
  {
    slug: 'painting-over',
    severity: 'warn',
    scope: 'plan',
    source: 'handbook 18, common practice',
    reason: 'Paint hides the wood, fills carving and lowers what the piece is worth; off again costs more than it did.',
    mend: "The client's yes is asked in writing; stain-block first where old stain or the wood's own would bleed.",
    check: c =>
      each(c, v => {
        const last = !firstAfter(v, u => films(u) && u.product?.traits.includes('coloured') === true)
        if (!films(v) || !v.product?.traits.includes('coloured') || v.step.fields.as || !last) return null
        const fine = v.group.substrate === 'veneer' ? 'veneer' : speciesOf(v.group.species).name
        return `${v.product.name} over ${fine}`
      }),
  },
  {
    slug: 'indoor-finish-outdoors',
    severity: 'warn',
    scope: 'plan',
    source: `${COMMON}, from memory`,
    reason: 'Rain and sun lift a film that is made for rooms; it cracks, and water stands under it.',
    mend: 'A varnish whose label says outdoors, or an oil that the owner renews every year.',
    check: c =>
      c.facts.use !== 'outdoors'
        ? []
        : each(c, v =>
            FOR_ROOMS.includes(v.product?.slug ?? '') && does(v.step, 'finishes') && !firstAfter(v, isFinish)
              ? `${v.product!.name} outdoors`
              : null,
          ),
  },
  {
    slug: 'thinned-too-far',
    severity: 'warn',
    scope: 'plan',
    source: 'its label; where it says nothing, common practice',
    reason: 'Thinned further than it takes, a product neither covers nor cures as it should.',
    mend: 'Thin it less, and lay another coat.',
    check: c =>
      each(c, ({ step, product }) => {
        const most = product?.thinMost_pct ?? null
        const by = reducer_pct(step.fields)
        if (product === null || most === null || by <= most) return null
        const takes = most === 0 ? 'none' : `${most} %`
        const said = product.labelled.includes('thinMost_pct')
          ? `its label allows ${takes}`
          : `it usually takes ${takes}`
        return `${product.name} thinned ${by} %; ${said}`
      }),
  },
]
