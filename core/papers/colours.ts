/** The colour card of a piece: its bands, what is in them, how they were laid, in which light they were judged. */
import type { Paper } from './paper'
import { small } from './parts'

export interface CardBand {
  title: string
  /** #rrggbb; null: it was not measured */
  colour: string | null
  /** parts of the recipe, in order */
  recipe: readonly { name: string; percent: number }[]
  /** how it was laid: coats, grit, what is over it */
  laid: readonly string[]
  /** 'in daylight'; '': in none that was written down */
  light: string
  /** null: nobody said yes to it yet */
  approved: string | null
}
export interface ColourCard {
  id: number
  shop: string
  client: string
  piece: string
  madeOn: string
  wood: string
  bands: readonly CardBand[]
}
const PAPER = '#f4f2ec'
export const coloursPaper = (c: ColourCard): Paper => ({
  title: `Colours: ${c.piece}`,
  from: [c.shop, c.madeOn],
  foot: `${c.shop} · piece ${c.id}`,
  parts: [
    {
      kind: 'facts',
      rows: [
        ['For', c.client],
        ['Wood', c.wood],
      ],
    },
    {
      kind: 'swatches',
      swatches: c.bands.map(b => ({
        colour: b.colour ?? PAPER,
        name: b.title,
        says: [
          ...(b.colour ? [] : ['Not measured: see the band itself.']),
          ...b.recipe.map(r => `${r.name} ${r.percent.toFixed(1)} %`),
          ...b.laid,
          ...(b.light ? [`Judged ${b.light}`] : []),
          ...(b.approved ? [`Agreed: ${b.approved}`] : []),
        ],
      })),
    },
    small(
      'Printed colours are only near: paper, ink and light change them. The band on the panel is what counts, looked ' +
        'at where the piece will stand.',
    ),
  ],
})
