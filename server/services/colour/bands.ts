import type { z } from 'zod'
import { labOfSpectrum, type Light } from '#core/colour'
import { saidSlug } from '#core/units'
import type * as c from '#shared/colour'
import type { Db } from '../../database/db'
import { settle } from '../client/answers'
import { type AskInput, openQuestion } from '../client/ask'
import { overtakeItems } from '../client/overtake'
import { readApproval } from '../client/rows'
import { ownerOf } from '../piece/findings'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import { readPlan } from '../plan/rows'
import type { Person } from '../shop/person'
import { type BandRow, readBands } from './bandRows'
import { potShares } from './potRows'
import { readReading } from './readings'
import { readRecipe, sharesOnly } from './recipes'

const stepOf = async (tx: Db, file: PieceFile, key: string) => {
  if (key === 'bare') return { title: 'Bare wood', kind: 'bare' }
  const step = (await readPlan(tx, file)).steps.find(s => s.key === key)
  if (!step)
    throw fail(422, 'unknown-reference', 'This step is not in the plan any more.', { stepKey: 'Not in the plan.' })
  return step
}

/** A band on the panel, with all that a colour record holds. */
export const addBand = (id: number, input: z.infer<typeof c.addBand>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const step = await stepOf(tx, file, input.stepKey)
    const reading = input.readingId ? await readReading(tx, input.readingId) : null
    if (reading && reading.clear_coat !== input.clearCoat)
      throw fail(
        422,
        'invalid',
        reading.clear_coat
          ? `This reading was taken under ${saidSlug(reading.clear_coat)}; the band's state has ` +
              `${input.clearCoat ? saidSlug(input.clearCoat) : 'no finish'}. Choose the reading that belongs to it.`
          : 'This reading was taken of the bare wood; the band has a finish. Choose the reading that belongs to it.',
        { readingId: 'Of another surface.' },
      )
    if (
      input.photograph &&
      !(await tx.row('SELECT id FROM photograph WHERE piece_id = :id AND address = :photograph', {
        id,
        photograph: input.photograph,
      }))
    )
      throw fail(422, 'unknown-reference', 'There is no such photograph of this piece.')
    const wood = await tx.row<{ species: string }>(
      `SELECT species
          FROM reading
          WHERE piece_id = :id AND role = 'wood' AND withdrawn_at IS NULL
          ORDER BY id DESC
          LIMIT 1`,
      { id },
    )
    const recipeShares = input.recipeId ? sharesOnly((await readRecipe(tx, input.recipeId)).shares) : null
    const shares = input.batchId ? await potShares(tx, input.batchId) : recipeShares
    const made = await tx.run(
      `INSERT INTO band (
          piece_id, step_key, title, recipe_id, shares, batch_id, reading_id, photograph_id, species, coats,
          clear_coat, light_history, grit, scale, conditioner, applicator, dwell_min, wipe, temperature_C, note,
          person_id, at
        )
          VALUES (
            :id, :stepKey, :title, :recipeId, :shares, :batchId, :readingId,
            (SELECT MAX(id) FROM photograph WHERE address = :photograph), :species, :coats, :clearCoat,
            :lightHistory, :grit, :scale, :conditioner, :applicator, :dwell_min, :wipe, :temperature_C, :note,
            :personId, :at
          )`,
      {
        ...input,
        id,
        title: step.title,
        shares: shares && JSON.stringify(shares),
        species: wood?.species ?? reading?.species ?? file.faces[0]?.species ?? 'unknown',
        personId: person.id,
        at,
      },
    )
    return {
      kind: 'colour',
      says: `Band on the panel: ${step.title}${
        reading
          ? `, L*a*b* ${labOfSpectrum(reading.spectrum)
              .map(v => v.toFixed(1))
              .join(', ')}`
          : ', not read yet'
      }${input.clearCoat ? '' : ', without finish'}`,
      result: { id: made.id },
    }
  })

/** A question about one band alone. */
const aboutBand = (band: BandRow, light: Light, { words, days }: { words: string; days: number }): AskInput => ({
  ...{ words, days, light, surface: false, beside: [], found: false, work: [], hardware: [], bands: [band.id] },
  ...{ dueOn: null, mostMinor: null, photographs: [] },
})

const onBand = <T>(
  bandId: number,
  rowVersion: number,
  at: Date,
  person: Person,
  change: (tx: Db, file: PieceFile, band: BandRow) => Promise<{ says: string; kind: string; result: T }>,
) =>
  ownerOf('SELECT piece_id FROM band WHERE id = :id AND withdrawn_at IS NULL', bandId, 'band').then(pieceId =>
    onPiece(pieceId, at, person, async (tx, file) => {
      const band = (await readBands(tx, pieceId)).find(b => b.id === bandId)!
      if (band.row_version !== rowVersion) throw stale()
      return change(tx, file, band)
    }),
  )

/** Asks the client about a finished band, by mail where there is an address. */
export const askAboutBand = (bandId: number, input: z.infer<typeof c.askBand>, person: Person, at: Date) =>
  onBand(bandId, input.rowVersion, at, person, async (tx, file, band) => {
    if (!band.spectrum)
      throw fail(409, 'not-read', 'Read this band first; the client is shown its colour beside the target.')
    const asked = await openQuestion(tx, file, aboutBand(band, input.light, input), person, at)
    return { kind: 'asked', says: asked.says, result: { id: asked.id } }
  })

/**
 * Approves a band at the counter, or withdraws it. The piece's colour is approved under finish only by a band under
 * finish.
 */
export const changeBand = (bandId: number, input: z.infer<typeof c.changeBand>, person: Person, at: Date) =>
  onBand(bandId, input.rowVersion, at, person, async (tx, file, band) => {
    if (input.kind === 'withdraw') {
      await overtakeItems(tx, file.piece.id, { bandIds: [bandId] })
      await tx.run('UPDATE band SET withdrawn_at = :at, row_version = row_version + 1 WHERE id = :bandId', {
        bandId,
        at,
      })
      if (band.approved_at)
        await tx.run(
          `UPDATE piece
              SET colour_sample = IF(
                EXISTS (
                  SELECT 1
                    FROM band
                    WHERE piece_id = :id AND approved_at IS NOT NULL AND withdrawn_at IS NULL
                ),
                'under-finish', 'none'
              ),
                row_version = row_version + 1
              WHERE id = :id`,
          { id: file.piece.id },
        )
      return { kind: 'colour', says: `Band taken back: ${band.title}`, result: { ok: true } }
    }
    const question = aboutBand(band, input.light, { words: '', days: 1 })
    const asked = await openQuestion(tx, file, question, person, at, { mailed: false })
    const yes = { replies: [{ no: 1, reply: 0 }], via: 'counter' as const, name: input.by, says: '', person }
    await settle(tx, await readApproval(tx, asked.id), yes, at)
    const lab = band.spectrum ? labOfSpectrum(band.spectrum).map(v => v.toFixed(1)) : []
    return {
      kind: 'colour',
      says:
        `Colour approved by ${input.by} under ${input.light.toUpperCase()}: band ${bandId}, ${band.title}, ` +
        `under ${band.clear_coat ? saidSlug(band.clear_coat) : 'no finish'}, wood ` +
        `${saidSlug(band.light_history)}${lab.length ? `, L*a*b* ${lab.join(', ')}` : ''}`,
      result: { ok: true },
    }
  })
