/** Reasons for and against a route, and how what was found is said in them. */
import { type Facts, type Finding, shareOf } from '../piece'
import { saidSlug } from '../units'

export type Standing = 'possible' | 'doubtful' | 'ruled-out'
export interface RouteReason {
  standing: Standing
  says: string
}

export const ruledOut = (says: string): RouteReason => ({ standing: 'ruled-out', says })
export const doubtful = (says: string): RouteReason => ({ standing: 'doubtful', says })
export const speaksFor = (says: string): RouteReason => ({ standing: 'possible', says })

export const layerName = (l: { finish: string; certainty: number }) =>
  `${saidSlug(l.finish)}, ${Math.round(l.certainty * 100)} % sure`
export const filmName = (facts: Facts) => (facts.found ? layerName(facts.found) : 'no finish test yet')
/** "grade 3, 12 % of the faces": what a finding amounts to. */
export const extent = (facts: Facts, f: Finding) => {
  const share = shareOf(facts, f.kind)
  return `grade ${f.grade}${share >= 0.005 ? `, ${Math.round(share * 100)} % of the faces` : ''}`
}
/** A finding of this grade is no trace. */
export const BADLY = 3
export const words = (slug: string) => slug[0]!.toUpperCase() + slug.slice(1).replaceAll('-', ' ')
