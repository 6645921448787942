/** Finishes and what colours, in the words of those who will live with them (common practice). */

export interface Everyday {
  /** what it is called at home */
  says: string
  /** how it looks and feels; '': it is not seen */
  look: string
  /** how it is lived with */
  care: string
}
const RENEWED = 'Renewed by its owner: wash, rub lightly, one more thin coat every year or two.'
const WHOLE = 'Wiped with a damp cloth. Once worn through it is taken off whole.'
const MELTS = 'Keep off hot cups, spirits and standing water. Scratches can be mended where they are.'

const WORDS: Readonly<Record<string, Everyday>> = {
  'nitrocellulose-lacquer': { says: 'sprayed lacquer', look: 'Thin, clear and even.', care: MELTS },
  'waterborne-polyurethane': {
    ...{ says: 'hard water-based varnish', look: 'Clear and pale; hardly yellows.', care: WHOLE },
  },
  'oil-polyurethane': { says: 'hard oil-based varnish', look: 'Warm, a little golden with the years.', care: WHOLE },
  'wiping-varnish': { says: 'thin varnish, wiped on', look: 'Warm and close to the wood.', care: WHOLE },
  'resin-oil-varnish': { says: 'varnish with oil, padded on', look: 'Warm, with depth.', care: RENEWED },
  'varnish-oil': { says: 'oil with a little varnish', look: 'Matt to satin, feels like wood.', care: RENEWED },
  'hardwax-oil-2c': { says: 'hard wax oil', look: 'Matt, feels like wood.', care: RENEWED },
  'urethane-2c': { says: 'two-part varnish, the hardest', look: 'Even and full.', care: WHOLE },
  'shellac-brushed': { says: 'shellac, brushed on', look: 'Warm and bright.', care: MELTS },
  'dewaxed-shellac': { says: 'shellac', look: 'Warm and clear.', care: MELTS },
  'primer-surfacer': { says: 'primer', look: '', care: '' },
  'metal-primer': { says: 'primer for metal', look: '', care: '' },
  'lacquer-sanding-sealer': { says: 'a sealing coat', look: '', care: '' },
  'vinyl-sealer': { says: 'a sealing coat', look: '', care: '' },
  'opaque-colour': { says: 'paint', look: 'Covers the wood.', care: WHOLE },
  'raw-linseed': { says: 'linseed oil', look: 'Warm, darkens with the years.', care: RENEWED },
  'boiled-linseed': { says: 'boiled linseed oil', look: 'Warm, darkens with the years.', care: RENEWED },
  'paste-wax': {
    says: 'wax',
    look: 'A soft sheen.',
    care: 'Buffed now and then, waxed again once a year; keep water off.',
  },
}
/** Null: there is no plainer word than the product's own. */
export const everydayOf = (slug: string): Everyday | null => (Object.hasOwn(WORDS, slug) ? WORDS[slug]! : null)
