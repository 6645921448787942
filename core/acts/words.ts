/** Words that titles share. */
import { gritName, type Grit } from '../abrasives'
import type { Context } from '../context'
import { taken, type Taken } from '../materials'
import type { Fields, Step } from './step'

export const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1)
/** What a step's product is called; a step without one says so. */
export const called = (step: Taken & { fields?: Fields }, { shelf }: Pick<Context, 'shelf'>): string => {
  const { thinned_pct, recipe, band_mm } = step.fields ?? {}
  return [
    taken(shelf, step)?.name ?? 'a product not chosen yet',
    thinned_pct ? `thinned ${thinned_pct} %` : '',
    recipe ? `by recipe "${recipe}"` : '',
    band_mm ? `in a band of ${band_mm} mm` : '',
  ]
    .filter(Boolean)
    .join(', ')
}
/** ", coat 2 of 3"; nothing where there is one, or it is not counted. */
export const coatOf = (step: Pick<Step, 'coat' | 'fields'>): string => {
  if (step.coat === null) return ''
  return step.fields.of ? `, coat ${step.coat} of ${step.fields.of}` : `, coat ${step.coat}`
}
export const gritsSaid = (grits: readonly Grit[], between = ' → '): string => grits.map(gritName).join(between)
