/** What a question of the walk is made of. */
import type { Facts, FindingKind } from '../piece'

export const STATIONS = [
  'history',
  'raking-light',
  'touch',
  'wash',
  'edges',
  'insides',
  'underside',
  'hardware',
  'joints',
  'wood',
] as const
export type Station = (typeof STATIONS)[number]

export interface WalkOption {
  slug: string
  says: string
  /** choosing it records this finding, to be placed on its face */
  finding?: FindingKind
  /** choosing it corrects the part's faces */
  substrate?: 'solid' | 'veneer'
}

export interface WalkContext {
  facts: Facts
  /** options chosen so far, as `question:option`; of a question per part, whatever the part */
  said: ReadonlySet<string>
  found: (...kinds: FindingKind[]) => boolean
}
export interface PartFaces {
  name: string
  faces: Facts['faces']
}

export interface Question {
  slug: string
  station: Station
  asks: string
  how: string
  /** several options may be chosen */
  many: boolean
  per: 'piece' | 'part'
  options: readonly WalkOption[]
  /** the one that says that there is nothing; closes the question alone */
  nothing: string | null
  when: (c: WalkContext, part: PartFaces | null) => boolean
}

export const always = () => true
export const OLD = ['before-1850', '1850-1925', '1925-1960', 'unknown']
export const finds = (...kinds: FindingKind[]): WalkOption[] =>
  kinds.map(kind => ({ slug: kind, says: '', finding: kind }))
export const option = (slug: string, says: string, more: Partial<WalkOption> = {}): WalkOption => ({
  slug,
  says,
  ...more,
})
export const one = (q: Omit<Question, 'many' | 'per' | 'nothing' | 'when'> & Partial<Question>): Question => ({
  many: false,
  per: 'piece',
  nothing: null,
  when: always,
  ...q,
})
export const many = (q: Omit<Question, 'many' | 'per' | 'nothing' | 'when'> & Partial<Question>): Question => {
  const nothing = q.nothing ?? 'nothing'
  return {
    many: true,
    per: 'piece',
    when: always,
    ...q,
    nothing,
    options: [...q.options, option(nothing, 'Nothing of this')],
  }
}
export const showing = (part: PartFaces | null) => part?.faces.some(f => f.rank !== 'hidden') ?? false
export const veneered = (part: PartFaces | null) => part?.faces.some(f => f.substrate === 'veneer') ?? false
