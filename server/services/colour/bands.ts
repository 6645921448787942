import type { z } from 'zod'
import { canonicalJson, type Json } from '#core/approval'
import { bandSvg, differencesUnder, labOfSpectrum, LIGHTS, type Light } from '#core/colour'
import { finishMaterial } from '#core/build'
import { materialOf } from '#core/materials'
import { saidSlug } from '#core/units'
import { speciesOf } from '#core/wood'
import type * as c from '#shared/colour'
import type { Db } from '../../database/db'
import { settle } from '../client/answers'
import { keepShown, openQuestion, overtake } from '../client/questions'
import { readApproval } from '../client/rows'
import { ownerOf } from '../piece/findings'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import { readPlan } from '../plan/rows'
import { DAY_MS } from '../platform/digest'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { type BandRow, type ColourShown, readBands } from './bandRows'
import { potShares } from './potRows'
import { type ReadingRow, READINGS, readReading } from './readings'
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

/**
 * A question about a band, kept like every question: content, swatches under each light, and a digest over both. A
 * newer one supersedes it.
 */
async function askColour(
  tx: Db,
  { piece, choice, context }: PieceFile,
  band: BandRow,
  { words, light }: { words: string; light: Light },
  person: Person,
  at: Date,
  { expires, mailed }: { expires: Date; mailed: boolean },
) {
  if (!band.clear_coat)
    throw fail(
      409,
      'no-finish',
      'This band has no finish on it. Wood and stain look paler and greyer bare; coat the band, read it, ' +
        'and approve that.',
    )
  const finishes = (choice?.buildUps ?? []).flatMap(b => finishMaterial(b.layers, context) ?? [])
  if (finishes.length && !finishes.some(m => m.slug === band.clear_coat))
    throw fail(
      409,
      'other-finish',
      `This band lies under ${materialOf(band.clear_coat).name}; the piece gets ` +
        `${finishes[0]!.name}. Put the finish on the band, read it, and approve that.`,
    )
  const target = await tx.row<ReadingRow>(
    `${READINGS} AND r.piece_id = :id AND r.role = 'target' ORDER BY r.id DESC LIMIT 1`,
    { id: piece.id },
  )
  const {
    spectrum,
    id,
    title,
    clear_coat,
    species,
    light_history,
    shares,
    grit,
    scale,
    conditioner,
    applicator,
    dwell_min,
    wipe,
    temperature_C,
    coats,
  } = band
  const shown: ColourShown = {
    about: 'colour',
    shop: (await readShop(tx)).name,
    piece: piece.name,
    client: piece.client_name,
    words,
    question: `Is this the colour? Band ${id}: ${title}, on ${speciesOf(species).name}`,
    light,
    under: spectrum && target && differencesUnder(target.spectrum, spectrum, LIGHTS),
    answerBy: expires.toISOString().slice(0, 10),
  }
  const content = canonicalJson({
    shown,
    band: {
      id,
      title,
      clear_coat,
      species,
      light_history,
      shares,
      coats,
      grit,
      scale,
      conditioner,
      applicator,
      dwell_min,
      wipe,
      temperature_C,
      spectrum,
    },
    target: target && { name: target.name, clear_coat: target.clear_coat, spectrum: target.spectrum },
  } as unknown as Json)
  const picture = spectrum ? bandSvg(spectrum, target?.spectrum ?? null, LIGHTS) : ''
  const snapshotId = await keepShown(tx, { pieceId: piece.id, reason: 'asked', content, picture }, at)
  await tx.run('UPDATE band SET judged_light = :light, row_version = row_version + 1 WHERE id = :id', { id, light })
  const asked = { about: 'colour', piece, snapshotId, bandId: id, words, expires, mailed } as const
  return { id: await openQuestion(tx, asked, person, at), question: shown.question }
}

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
    const expires = new Date(at.getTime() + input.days * DAY_MS)
    const asked = await askColour(tx, file, band, input, person, at, { expires, mailed: true })
    return { kind: 'asked', says: `Client asked: ${asked.question}`, result: { id: asked.id } }
  })

/**
 * Approves a band at the counter, or withdraws it. The piece's colour is approved under finish only by a band under
 * finish.
 */
export const changeBand = (bandId: number, input: z.infer<typeof c.changeBand>, person: Person, at: Date) =>
  onBand(bandId, input.rowVersion, at, person, async (tx, file, band) => {
    if (input.kind === 'withdraw') {
      await overtake(tx, 'colour', { pieceId: file.piece.id, bandId })
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
    const asked = await askColour(tx, file, band, { words: '', light: input.light }, person, at, {
      expires: new Date(at.getTime() + DAY_MS),
      mailed: false,
    })
    await settle(
      tx,
      await readApproval(tx, asked.id),
      { answer: 'yes', via: 'counter', name: input.by, says: '', person },
      at,
    )
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
