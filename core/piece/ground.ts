/** What may be done with what is there, before anything new is laid on it. */
export const ROUTES = [
  'clean-and-wax',
  'amalgamate',
  'spot-repair',
  'scuff-and-recoat',
  'scuff-and-gel',
  'level-barrier-recoat',
  'strip-chemical',
  'strip-mechanical',
  'strip-both',
  'refer',
] as const
/** Least invasive first. */
export type RouteSlug = (typeof ROUTES)[number]
/** What a route is called. */
export const ROUTE_NAMES = {
  'clean-and-wax': 'Clean and wax',
  'amalgamate': 'Let the film flow together',
  'spot-repair': 'Repair spots',
  'scuff-and-recoat': 'Scuff and recoat',
  'scuff-and-gel': 'Scuff and gel stain',
  'level-barrier-recoat': 'Level, barrier, recoat',
  'strip-chemical': 'Strip with stripper',
  'strip-mechanical': 'Scrape and sand off',
  'strip-both': 'Strip, then sand',
  'refer': 'Refer to a conservator',
} as const satisfies Record<RouteSlug, string>
/** Routes that take the old film off. */
export const STRIPPING: readonly RouteSlug[] = ['strip-chemical', 'strip-mechanical', 'strip-both']
