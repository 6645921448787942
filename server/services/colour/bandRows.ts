import type { APPLICATORS, ClearCoat, Light, Share, Wipe } from '#core/colour'
import type { Db } from '../../database/db'
import type { ReadingRow } from './readings'

export interface BandRow {
  id: number
  step_key: string
  title: string
  recipe_id: number | null
  shares: Share[] | null
  batch_id: number | null
  reading_id: number | null
  photograph: string | null
  species: string
  coats: number
  clear_coat: ClearCoat | null
  light_history: ReadingRow['light_history']
  grit: number | null
  scale: 'P' | 'CAMI'
  conditioner: string
  applicator: (typeof APPLICATORS)[number]
  dwell_min: number | null
  wipe: Wipe
  temperature_C: number | null
  note: string
  approved_at: Date | null
  approved_by: string | null
  judged_light: Light | null
  by_name: string
  at: Date
  row_version: number
  spectrum: number[] | null
}
const BANDS = `SELECT band.id, band.step_key, band.title, band.recipe_id, band.shares, band.batch_id, band.reading_id,
    photograph.address AS photograph, band.species, band.coats, band.clear_coat, band.light_history, band.grit,
    band.scale, band.conditioner, band.applicator, band.dwell_min, band.wipe, band.temperature_C, band.note,
    band.approved_at, band.approved_by, band.judged_light, person.name AS by_name, band.at, band.row_version,
    r.spectrum
    FROM band
    JOIN person ON person.id = band.person_id
    LEFT JOIN reading r ON r.id = band.reading_id
    LEFT JOIN photograph ON photograph.id = band.photograph_id
    WHERE band.withdrawn_at IS NULL AND band.piece_id = :id
    ORDER BY band.id`
/** The bands of a piece's panel, with their readings. */
export const readBands = (on: Db, id: number) => on.rows<BandRow>(BANDS, { id })
