import {
  type Colourant,
  gradeOf,
  type Light,
  type Reason,
  type Recipe,
  screenOf,
  type SearchState,
  viewingOf,
} from '#core/colour'

export type ColourPage = AnswerOf<'GET /api/colour'>
export type ReadingLine = ColourPage['readings'][number]
export type ColourantLine = ColourPage['colourants'][number]
export type RecipeLine = AnswerOf<'GET /api/recipes'>[number]
export type BatchPage = AnswerOf<'GET /api/batches/:id'>
export type PanelPage = AnswerOf<'GET /api/pieces/:id/panel'>
export type PanelLine = PanelPage['lines'][number]
/** What the search worker sends. */
export type SearchMessage =
  { state: SearchState } | { done: SearchState; chosen: Recipe | null; reasons: Reason[] } | { failed: string }

/** How a spectrum looks on this screen under a light; a guide only. */
export const swatch = (spectrum: readonly number[], light: Light): string => screenOf(spectrum, viewingOf(light)).hex
export const grade = (de: number) => `colour.grade.${gradeOf(de)}` as const

/** Colourants of the store as they act on a wood: what was learnt there first. */
export const colourantsOn = (lines: readonly ColourantLine[], species: string): Colourant[] =>
  lines.map(l => ({
    id: l.product_id,
    name: l.name,
    group: l.class,
    lies: l.lies,
    most_pct: l.most_pct,
    k: l.onWood.find(w => w.species === species)?.spectrum ?? l.spectrum,
  }))

/** The light that swatches are shown under, the same on every page. */
export const useLight = () => useState<Light>('light', () => 'd65')
