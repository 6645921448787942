import type { z } from 'zod'
import { changesLook, deltaE00, flat, isColour, labOf, labOfSpectrum, panelStates, shiftInLight, viewingOf, withAbsorption, type PlannedColour, type Spectrum } from '#core/colour'
import { speciesOf } from '#core/wood'
import type * as c from '#shared/colour'
import { db, type Db } from '../database/db'
import { potShares } from './batches'
import { innerOfReading, onWood, READINGS, readColourants, readReading, type ReadingRow } from './colour'
import { ownerOf } from './findings'
import type { Person } from './people'
import { onPiece, readPiece, type PieceFile } from './pieces'
import { readPlan } from './planRows'
import { readRecipe, sharesOnly, type RecipeRow, type ShareLine } from './recipes'

interface BandRow {
  id: number, step_key: string, title: string, recipe_id: number | null, batch_id: number | null, reading_id: number | null, photograph: string | null, species: string, coats: number, clear_coat: string | null, light_history: ReadingRow['light_history']
  grit: number | null, scale: 'P' | 'CAMI', conditioner: string, applicator: string, dwell_min: number | null, wipe: string, temperature_C: number | null, note: string, approved_at: Date | null, approved_by: string | null, approved_light: string | null
  by_name: string, at: Date, row_version: number, spectrum: number[] | null
}
const BANDS = `SELECT band.id, band.step_key, band.title, band.recipe_id, band.batch_id, band.reading_id, photograph.address AS photograph, band.species, band.coats, band.clear_coat, band.light_history, band.grit, band.scale, band.conditioner, band.applicator, band.dwell_min, band.wipe, band.temperature_C,
    band.note, band.approved_at, band.approved_by, band.approved_light, person.name AS by_name, band.at, band.row_version, r.spectrum
  FROM band JOIN person ON person.id = band.person_id LEFT JOIN reading r ON r.id = band.reading_id LEFT JOIN photograph ON photograph.id = band.photograph_id WHERE band.withdrawn_at IS NULL AND band.piece_id = :id ORDER BY band.id`

/** The newest of a piece's readings in a role. */
const latest = (readings: readonly ReadingRow[], role: ReadingRow['role'], zone?: ReadingRow['zone']) => readings.find(r => r.role === role && (!zone || r.zone === zone)) ?? null

/** The piece's newest recipe of each class of colour. */
async function recipesOf(on: Db, id: number): Promise<(RecipeRow & { shares: ShareLine[] })[]> {
  const ids = await on.rows<{ id: number }>('SELECT MAX(id) AS id FROM recipe WHERE piece_id = :id GROUP BY class', { id })
  return Promise.all(ids.map(r => readRecipe(on, r.id)))
}

const daylight = () => viewingOf('d65')
const away = (a: Spectrum, b: Spectrum) => deltaE00(labOf(a, daylight()), labOf(b, daylight()))

/** How far ahead the client is shown: by then the coat has yellowed and fresh wood has shifted. */
const YEARS = 10

/** The steps of one face, so that faces that go another way have no coats in this panel: the first face that is coloured, else coated. */
function stepsOfLead<T extends { kind: string, faces: readonly number[] }>(steps: readonly T[]): T[] {
  const lead = (steps.find(s => isColour(s.kind)) ?? steps.find(s => changesLook(s.kind)))?.faces[0]
  return lead === undefined ? [] : steps.filter(s => s.faces.includes(lead))
}

/** The step panel: each state that changes the look, foretold and measured, and where the work stands now. */
export async function panelPage(id: number) {
  const file = await readPiece(db(), id)
  const [plan, readings, bands, recipes, colourants] = [await readPlan(db(), id), await db().rows<ReadingRow>(`${READINGS} AND r.piece_id = :id ORDER BY r.id DESC`, { id }), await db().rows<BandRow>(BANDS, { id }), await recipesOf(db(), id), await readColourants(db())]
  const wood = latest(readings, 'wood', 'heartwood') ?? latest(readings, 'wood')
  const target = latest(readings, 'target')
  const set = onWood(colourants, wood?.species ?? 'unknown')
  const planned = recipes.map((r): PlannedColour => ({ group: r.class, wipe: r.wipe, shares: sharesOnly(r.shares), set: set.filter(k => r.shares.some(s => s.id === k.id)) }))
  const steps = stepsOfLead(plan.steps.filter(s => s.state !== 'skipped'))
  const inner = wood ? innerOfReading(wood) : flat(0.5)
  const gloss = target?.gloss ?? 'excluded'
  const states = panelStates(steps, inner, planned, gloss)
  const done = new Set(steps.filter(s => s.state === 'done').map(s => s.key))
  const isBare = steps.slice(0, steps.findIndex(s => changesLook(s.kind))).every(s => s.state === 'done')
  const reached = states.findLastIndex(s => s.key === 'bare' ? isBare : done.has(s.key))
  const coatsOf = (kind: string) => new Set(steps.filter(s => s.product === kind && changesLook(s.kind)).map(s => s.coat)).size
  const lines = states.map((s, i) => {
    const mine = bands.filter(b => b.step_key === s.key)
    const predicted = wood ? s.predicted : null
    return {
      key: s.key, title: s.title, why: wood ? s.why : 'no-wood' as const, underFinish: s.underFinish, coats: s.coats, now: i === reached, predicted, toTarget: predicted && target ? away(predicted, target.spectrum) : null,
      bands: mine.map(b => ({ ...b, off: b.spectrum && predicted ? away(b.spectrum, predicted) : null, toTarget: b.spectrum && target ? away(b.spectrum, target.spectrum) : null, lab: b.spectrum ? labOfSpectrum(b.spectrum) : null })),
    }
  })
  const fresh = wood?.light_history !== 'in-light'
  const species = wood?.species ?? 'unknown'
  return {
    wood, target, readings, recipes, lines, photographs: (await db().rows<{ address: string }>('SELECT address FROM photograph WHERE piece_id = :id ORDER BY id DESC', { id })).map(p => p.address), finish: file.piece.finish,
    batches: await db().rows<{ id: number, name: string }>('SELECT id, name FROM batch WHERE piece_id = :id AND recipe_id IS NOT NULL AND mixed_at IS NOT NULL ORDER BY id DESC', { id }),
    coatsDiffer: recipes.filter(r => coatsOf(r.class) > 0 && coatsOf(r.class) !== r.coats).map(r => ({ id: r.id, made: r.coats, planned: coatsOf(r.class) })),
    later: wood && states.at(-1)!.underFinish ? { years: YEARS, spectrum: panelStates(steps, fresh ? withAbsorption(inner, shiftInLight(species)) : inner, planned, gloss, YEARS).at(-1)!.predicted } : null,
    shifts: fresh && Math.abs(shiftInLight(species) - 1) > 0.12 ? { species: speciesOf(species).name, darker: shiftInLight(species) > 1 } : null,
    lightDiffers: wood !== null && target !== null && wood.light_history !== target.light_history,
  }
}

const stepOf = async (tx: Db, file: PieceFile, key: string) => {
  if (key === 'bare') return { title: 'Bare wood', kind: 'bare' }
  const step = (await readPlan(tx, file.piece.id)).steps.find(s => s.key === key)
  if (!step) throw fail(422, 'unknown-reference', 'This step is not in the plan any more.', { stepKey: 'Not in the plan.' })
  return step
}

/** A band on the panel, with all that a colour record holds. */
export const addBand = (id: number, input: z.infer<typeof c.addBand>, person: Person, at: Date) => onPiece(id, at, person, async (tx, file) => {
  const step = await stepOf(tx, file, input.stepKey)
  const reading = input.readingId ? await readReading(tx, input.readingId) : null
  if (reading && reading.clear_coat !== input.clearCoat) throw fail(422, 'invalid', reading.clear_coat ? `This reading was taken under ${reading.clear_coat}; the band's state has ${input.clearCoat ?? 'no finish'}. Choose the reading that belongs to it.` : 'This reading was taken of the bare wood; the band has a finish. Choose the reading that belongs to it.', { readingId: 'Of another surface.' })
  if (input.photograph && !await tx.row('SELECT id FROM photograph WHERE piece_id = :id AND address = :photograph', { id, photograph: input.photograph })) throw fail(422, 'unknown-reference', 'There is no such photograph of this piece.')
  const wood = await tx.row<{ species: string }>('SELECT species FROM reading WHERE piece_id = :id AND role = \'wood\' AND withdrawn_at IS NULL ORDER BY id DESC LIMIT 1', { id })
  const shares = input.batchId ? await potShares(tx, input.batchId) : input.recipeId ? sharesOnly((await readRecipe(tx, input.recipeId)).shares) : null
  const made = await tx.run(
    `INSERT INTO band (piece_id, step_key, title, recipe_id, shares, batch_id, reading_id, photograph_id, species, coats, clear_coat, light_history, grit, scale, conditioner, applicator, dwell_min, wipe, temperature_C, note, person_id, at)
     VALUES (:id, :stepKey, :title, :recipeId, :shares, :batchId, :readingId, (SELECT MAX(id) FROM photograph WHERE address = :photograph), :species, :coats, :clearCoat, :lightHistory, :grit, :scale, :conditioner, :applicator, :dwell_min, :wipe, :temperature_C, :note, :personId, :at)`,
    { ...input, id, title: step.title, shares: shares && JSON.stringify(shares), species: wood?.species ?? reading?.species ?? file.faces[0]?.species ?? 'unknown', personId: person.id, at })
  return { kind: 'colour', says: `Band on the panel: ${step.title}${reading ? `, L*a*b* ${labOfSpectrum(reading.spectrum).map(v => v.toFixed(1)).join(', ')}` : ', not read yet'}${input.clearCoat ? '' : ', without finish'}`, result: { id: made.id } }
})

/** Approves a band, or withdraws it. The piece's colour is approved under finish only by a band under finish. */
export async function changeBand(bandId: number, input: z.infer<typeof c.changeBand>, person: Person, at: Date) {
  return onPiece(await ownerOf('SELECT piece_id FROM band WHERE id = :id AND withdrawn_at IS NULL', bandId, 'band'), at, person, async (tx, file) => {
    const band = (await tx.rows<BandRow>(BANDS, { id: file.piece.id })).find(b => b.id === bandId)!
    if (band.row_version !== input.rowVersion) throw stale()
    if (input.kind === 'withdraw') {
      await tx.run('UPDATE band SET withdrawn_at = :at, row_version = row_version + 1 WHERE id = :bandId', { bandId, at })
      if (band.approved_at) await tx.run('UPDATE piece SET colour_sample = IF(EXISTS (SELECT 1 FROM band WHERE piece_id = :id AND approved_at IS NOT NULL AND withdrawn_at IS NULL), \'under-finish\', \'none\'), row_version = row_version + 1 WHERE id = :id', { id: file.piece.id })
      return { kind: 'colour', says: `Band taken back: ${band.title}`, result: { ok: true } }
    }
    if (!band.clear_coat) throw fail(409, 'no-finish', 'This band has no finish on it. Wood and stain look paler and greyer bare; coat the band, read it, and approve that.')
    await tx.run('UPDATE band SET approved_at = :at, approved_by = :by, approved_light = :light, row_version = row_version + 1 WHERE id = :bandId', { bandId, at, by: input.by, light: input.light })
    await tx.run('UPDATE piece SET colour_sample = \'under-finish\', row_version = row_version + 1 WHERE id = :id', { id: file.piece.id })
    return { kind: 'answer', says: `Colour approved by ${input.by} under ${input.light.toUpperCase()}: band ${bandId}, ${band.title}, under ${band.clear_coat}, wood ${band.light_history}${band.spectrum ? `, L*a*b* ${labOfSpectrum(band.spectrum).map(v => v.toFixed(1)).join(', ')}` : ''}`, result: { ok: true } }
  })
}
