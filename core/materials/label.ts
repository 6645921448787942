/**
 * What the label of one product says. Each figure is optional, and outranks that of its class; versions are only ever
 * added. Minutes, days, µm, m²/l, g/ml, per cent, °C, g/l, months.
 */
import type { Material } from './material'

export interface LabelFigures {
  solids_pct?: number
  wet_um?: number
  spread_m2_l?: number
  density_g_ml?: number
  recoat_min?: number
  recoatMax_min?: number
  handle_min?: number
  cure_d?: number
  wipe_min?: number
  potLife_min?: number
  /** parts, as printed: "4:2:1" */
  ratio?: string
  reducer?: string
  reduceMost_pct?: number
  airMin_C?: number
  airMax_C?: number
  rhMax_pct?: number
  between_P?: number
  coats?: number
  voc_g_l?: number
  flash_C?: number
  sheen?: string
  keepsClosed_mo?: number
  keepsOpened_mo?: number
  /** where its safety data sheet lies */
  safetySheet?: string
}
/** A product of the shop with the newest version of its label, or an older one. */
export interface Label {
  /** of this version */
  id: number
  product: number
  name: string
  class: string
  figures: LabelFigures
}

/** What each figure of a label says of the product, as the reckoning reads it. */
const SAYS: { [F in keyof LabelFigures]?: (value: never, m: Material) => Partial<Material> } = {
  solids_pct: (pct: number) => ({ solids: [pct / 100, pct / 100] }),
  wet_um: (wet_um: number) => ({ wet_um }),
  // one litre spread over so many m²: 1000 ml on 1 m² is 1000 µm
  spread_m2_l: (m2: number, m) =>
    m.wet_um === null
      ? { spread_g_m2: [(1000 * m.density) / m2, (1000 * m.density) / m2] }
      : { wet_um: Math.round((1000 / m2) * 10) / 10 },
  density_g_ml: (density: number) => ({ density }),
  recoat_min: (min: number) => ({ recoat_min: [min, min] }),
  recoatMax_min: (recoatMax_min: number) => ({ recoatMax_min }),
  handle_min: (handle_min: number) => ({ handle_min }),
  cure_d: (days: number) => ({ cure_d: [days, days] }),
  wipe_min: (wipe_min: number) => ({ wipe_min }),
  potLife_min: (min: number) => ({ potLife_min: [min, min] }),
  airMin_C: (limitMin_C: number, m) => (m.air ? { air: { ...m.air, limitMin_C } } : {}),
  airMax_C: (limitMax_C: number, m) => (m.air ? { air: { ...m.air, limitMax_C } } : {}),
  rhMax_pct: (pct: number, m) => (m.air ? { air: { ...m.air, limitMaxRh: pct / 100 } } : {}),
  reduceMost_pct: (thinMost_pct: number) => ({ thinMost_pct }),
  sheen: (sheen: string) => ({ sheen }),
  between_P: (betweenCoats_P: number) => ({ betweenCoats_P }),
  coats: (coats: number, m) => ({ coats: [coats, Math.max(coats, m.coats[1])] }),
  voc_g_l: (voc_g_l: number) => ({ voc_g_l }),
}

/** A class with what a label says laid over it. */
export function withLabel(m: Material, { name, figures }: Pick<Label, 'name' | 'figures'>): Material {
  let labelled: Material = { ...m, name, labelled: [] }
  for (const [figure, value] of Object.entries(figures)) {
    const says = SAYS[figure as keyof LabelFigures] as ((v: unknown, m: Material) => Partial<Material>) | undefined
    if (!says || value === undefined || value === null) continue
    const said = says(value, labelled)
    labelled = {
      ...labelled,
      ...said,
      labelled: [...labelled.labelled, ...(Object.keys(said) as (keyof Material)[])],
    }
  }
  return labelled
}
