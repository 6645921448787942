import { faceArea_m2, parseLength_mm } from '#core/units'

export type PartDraft = Draft<'POST /api/pieces/:id/parts'>['parts'][number]
type FaceDraft = PartDraft['faces'][number]

/** What was typed of a piece that is not taken in yet, as JSON; this device keeps it. */
export const useTakeInDraft = () => useLocalStorage<string | null>('hantverk-take-in', null)

export const blankFace = (): FaceDraft => ({
  name: '',
  rank: 'show',
  shape: 'flat',
  orientation: 'horizontal',
  length: '',
  width: '',
  count: 1,
  species: 'oak',
  substrate: 'solid',
  veneer: '',
})
export const blankPart = (): PartDraft => ({ name: '', scope: 'refinish', faces: [blankFace()] })

export const firstParts = (): PartDraft[] => [blankPart()]

/** Area of a face as it is typed, m²; null until it can be worked out. */
export function draftArea_m2(f: FaceDraft, unit: 'mm' | 'in'): number | null {
  const length_mm = parseLength_mm(f.length, unit)
  const width_mm = parseLength_mm(f.width, unit)
  if (length_mm === null || width_mm === null || !f.count || !Number.isInteger(f.count) || f.count < 1) return null
  return faceArea_m2({ shape: f.shape, length_mm, width_mm, count: f.count })
}
