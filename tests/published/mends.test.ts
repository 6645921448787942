import { describe, expect, it } from 'vitest'
import { causesOf, MENDS, SIGNS, signOf } from '#core/diagnose'

/**
 * What mends each sign now, and what is done another time. Common practice (handbook, signs, causes, questions, mends:
 * the words after its two arrows).
 */
const ROWS: readonly (readonly [sign: string, cause: string, mend: RegExp, next: RegExp])[] = [
  ['fish-eyes', 'silicone', /Sand.*wash twice.*barrier.*thin coats/, /[Bb]arrier from the start.*no silicone/],
  ['orange-peel', 'thick', /[Cc]ured, level it within the film.*coat again/, /card.*set-up/],
  ['blush', 'damp', /[Dd]ry and warm the air.*mist retarder/, /limits of the air.*retarder/],
  ['bubbles', 'shaken', /[Cc]ured.*sand.*thin coat/, /Stir, pour slowly/],
  ['bubbles', 'hot', /[Cc]ured.*sand.*thin coat/, /[Cc]ool, shaded wood; a sealer first/],
  ['runs', 'much', /[Ww]ait.*level the run alone.*coat again/, /Less/],
  ['nibs', 'room', /One light pass, then the next coat/, /Settle the room, wet the floor/],
  ['lap-marks', 'air', /sand.*coat/, /extender or a slower reducer/],
  ['lap-marks', 'edge', /sand.*coat/, /Rows so short/],
  ['brush-marks', 'thick', /level.*coat again/, /Thin by the label; a pad/],
  ['swirls', 'hand', /light sanding by hand with the grain, in the colour, and another coat of it, blended/, /by hand/],
  ['swirls', 'disc', /Back to the wood from P150/, /fresh disc/],
  ['blotches', 'wood', /[Tt]oward the dark with dye, gel or toner/, /Conditioner, dye or gel/],
  ['white-specks', 'dry', /same colour on again, wiped clean in small sections/, /Small sections; turn the cloth/],
  ['sticky', 'air', /Warm, moving air, and wait/, /[Aa]ir within the limits/],
  ['sticky', 'excess', /Wipe with its thinner/, /Wipe all of it/],
  ['sticky', 'mixed', /No good after days: it comes off/, /Write the ratio/],
  ['wrinkling', 'solvent', /Off as far as it lets go.*barrier/, /barrier, and a milder product/],
  ['halos', 'layers', /Strip the face/, /gate before the promise/],
  ['halos', 'repairs', /Tone the little that shows/, /Feather/],
  ['grey-filler', 'wet', /Sand, dye or glaze the pores, seal/, /24 to 72 h/],
  ['sunken-pores', 'once', /second fill.*body.*level/, /Two fills/],
  ['cloudy-filler', 'film', /[Ss]and the film of filler off to clear wood, and wipe/, /clear wood/],
  ['unlike-sample', 'batch', /[Cc]orrect it by a toner or more of it; else the colour comes off/, /weigh it again/],
  ['other-light', 'room', /Nothing to mend/, /client's own lamp/],
  ['cut-through', 'arris', /Colour the line, then a coat over it/, /Edges last, by hand/],
  ['rust-specks', 'wool', /bare wood oxalic acid.*film tone it or strip/, /No steel wool before water/],
  ['black-spots', 'mould', /Kill the mould, and dry the wood/, /[Dd]ry air/],
  ['white-ring', 'moisture', /Gentle warmth, then oil and a fine abrasive.*retarder mist/, /water/],
  ['peeling', 'scuff', /Off as far as it lets go, scuff all of it/, /Scuff every film/],
  ['tape', 'lacquer', /Glue off with white spirit/, /Off soon/],
  ['tape', 'young', /Touch in the torn edge/, /A day before tape; paper on faces/],
  ['under-tape', 'wet', /nearly dry thinner rag, away from the line/, /Weak first coats/],
  ['under-tape', 'pores', /Scrape it off the film/, /Seal the edge of the tape with clear/],
  ['uneven-sheen', 'stirred', /Scuff, and a coat of the right sheen, tried for hold/, /Stir to the bottom/],
  ['uneven-sheen', 'rubbed', /Rub the whole face/, /whole face/],
  ['raised-grain', 'water', /Knock it back with a pad or the last grit/, /Raise the grain and cut it first/],
  [
    'fill-shows',
    'colour',
    /Touch-up colour in layers, with lines of grain, under clear/,
    /Tint it before, or set in a patch/,
  ],
]
describe('mends', () => {
  it.each(ROWS)('%s by %s', (slug, cause, mend, next) => {
    expect(causesOf(signOf(slug))).toContain(cause)
    const found = signOf(slug).causes[cause]!
    expect(MENDS[found.mend].says).toMatch(mend)
    expect(found.next).toMatch(next)
  })
  it('have a row for each of the 29', () => {
    expect(new Set(ROWS.map(r => r[0]))).toEqual(new Set(SIGNS.map(s => s.slug)))
  })
  it('stop at once where going on makes it worse', () => {
    for (const slug of ['fish-eyes', 'blush', 'wrinkling', 'halos', 'cut-through'])
      expect(signOf(slug).now, slug).toMatch(/^Stop/)
    for (const slug of ['sticky', 'grey-filler', 'cloudy-filler', 'swirls'])
      expect(signOf(slug).now, slug).toMatch(/[Nn]o(thing)? (more coats|goes over|topcoat)/)
  })
})
