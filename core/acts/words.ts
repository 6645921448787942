/** Words that titles share. */
import { gritName, type Grit } from '../abrasives'
import type { Context } from '../context'
import { taken, type Taken } from '../materials'
import { saidSlug, sumOf } from '../units'
import type { Fields, Step } from './step'

export const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1)
/** What a step's product is called; a step without one says so. */
export const called = (step: Taken, { shelf }: Pick<Context, 'shelf'>): string =>
  taken(shelf, step)?.name ?? 'a product not chosen yet'
/** ", thinned 20 %, by recipe ..."; nothing where it goes on as it is. */
export const asChosen = ({ thinned_pct, strength, recipe, band_mm }: Fields): string =>
  [
    thinned_pct ? `thinned ${thinned_pct} %` : '',
    strength ?? '',
    recipe ? `by recipe "${recipe}"` : '',
    band_mm ? `in a band of ${band_mm} mm` : '',
  ]
    .filter(Boolean)
    .map(said => `, ${said}`)
    .join('')
/** ", coat 2 of 3"; nothing where there is one, or it is not counted. */
export const coatOf = (step: Pick<Step, 'coat' | 'fields'>): string => {
  if (step.coat === null) return ''
  return step.fields.of ? `, coat ${step.coat} of ${step.fields.of}` : `, coat ${step.coat}`
}
/** What one of a kind is called, where its name is a plural. */
const ONE_OF: Readonly<Record<string, string>> = {
  'dents': 'dent',
  'nail-holes': 'hole',
  'staples': 'staple or nail',
  'scratches': 'scratch',
  'runs': 'run',
  'brush-marks': 'patch of brush marks',
  'swirl-marks': 'patch of swirl marks',
  'nibs': 'patch of nibs',
  'glue-smear': 'smear of glue',
  'worn-through': 'worn place',
  'sanded-through': 'place sanded through',
  'veneer-chipped': 'chip in the veneer',
  'veneer-lifted': 'lifted veneer',
  'veneer-blistered': 'blister in the veneer',
}
/** "2 × dent, 1 × hole" */
export const placesSaid = (rows: readonly { kind: string; places: number }[]): string =>
  rows.map(r => `${r.places} × ${ONE_OF[r.kind] ?? saidSlug(r.kind)}`).join(', ')
/** ": only 2 × black ring, about 80 cm²"; nothing where the whole face is worked. */
export const spotsSaid = ({ where, spots = [] }: Fields): string => {
  if (where !== 'spots' || spots.length === 0) return ''
  return `: ${placesSaid(spots)}, about ${Math.max(1, Math.round(sumOf(spots, s => s.cm2)))} cm²`
}
export const gritsSaid = (grits: readonly Grit[], between = ' → '): string => grits.map(gritName).join(between)
