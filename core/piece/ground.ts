import type { FinishClass } from './finish'

/** What may be done with what is there, before anything new is laid on it. */
export const ROUTES = [
  'as-it-stands',
  'clean-and-wax',
  'renew',
  'polish',
  'amalgamate',
  'spot-repair',
  'scuff',
  'level-barrier-recoat',
  'strip-chemical',
  'strip-mechanical',
  'strip-both',
  'refer',
] as const
/** Least invasive first. */
export type RouteSlug = (typeof ROUTES)[number]
/** Those that are work of the shop's own. */
export const OWN_ROUTES = ROUTES.filter(r => r !== 'refer')
export type OwnRoute = (typeof OWN_ROUTES)[number]
export const isRoute = (slug: string): slug is RouteSlug => (ROUTES as readonly string[]).includes(slug)
/** What a route is called. */
export const ROUTE_NAMES = {
  'as-it-stands': 'Begin as it stands',
  'clean-and-wax': 'Clean and wax',
  'renew': 'Renew the oil or wax in place',
  'polish': 'Level and polish what is there',
  'amalgamate': 'Let the film flow together',
  'spot-repair': 'Repair spots',
  'scuff': 'Scuff and coat over',
  'level-barrier-recoat': 'Level, barrier, recoat',
  'strip-chemical': 'Strip with stripper',
  'strip-mechanical': 'Scrape and sand off',
  'strip-both': 'Strip, then sand',
  'refer': 'Refer to a conservator',
} as const satisfies Record<RouteSlug, string>
/** The same, in the words of those who will live with it; begins a line. */
export const ROUTE_AT_HOME: Readonly<Record<RouteSlug, string>> = {
  ...{ 'as-it-stands': 'Begun as it stands', 'clean-and-wax': 'Cleaned and waxed', 'renew': 'Its oil or wax renewed' },
  'polish': 'The old finish levelled and polished',
  'amalgamate': 'The old finish made to flow together',
  'spot-repair': 'Mended where it is worn',
  'scuff': 'The old finish kept, roughened for the new',
  'level-barrier-recoat': 'The old finish kept, levelled and sealed for the new',
  'strip-chemical': 'The old finish taken off',
  'strip-mechanical': 'The old finish sanded off',
  'strip-both': 'The old finish taken off',
  'refer': 'To be seen by a conservator first',
}
/** Finishes that leave no film on the wood. */
export const NO_FILM: readonly FinishClass[] = ['none', 'oil', 'hardwax-oil']
/** Finishes that are renewed in place with their own kind, and with what. */
export const RENEWED_WITH: { readonly [F in FinishClass]?: string } = {
  'oil': 'varnish-oil',
  'hardwax-oil': 'hardwax-oil-2c',
  'wax': 'paste-wax',
}
/** Routes that lay a finish that somebody picked. */
export const LAYS: readonly RouteSlug[] = [
  ...(['as-it-stands', 'scuff', 'level-barrier-recoat'] as const),
  ...(['strip-chemical', 'strip-mechanical', 'strip-both'] as const),
]
/** Routes that take the old film off. */
export const STRIPPING: readonly RouteSlug[] = ['strip-chemical', 'strip-mechanical', 'strip-both']
