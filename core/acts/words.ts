/** Words that titles share. */
import { gritName, type Grit } from '../abrasives'
import type { Context } from '../context'
import { taken, type Taken } from '../materials'
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
export const gritsSaid = (grits: readonly Grit[], between = ' → '): string => grits.map(gritName).join(between)
