import { createHash } from 'node:crypto'
import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import type { Person } from '../shop/person'
import { onPiece } from './pieces'

export const MOST_BYTES = 25_000_000

/**
 * Who is sending a file to this instance just now: each upload is held in memory while it comes, so one at a time
 * each.
 */
const sending = new Set<number>()
export async function oneUpload<T>(personId: number, work: () => Promise<T>): Promise<T> {
  if (sending.has(personId))
    throw fail(429, 'one-at-a-time', 'Another file of yours is still coming in. Send this one after it.')
  sending.add(personId)
  try {
    return await work()
  } finally {
    sending.delete(personId)
  }
}

/**
 * Stores a picture as JPEG up to 2560 px and a 320 px thumbnail; keeps when it was taken, drops all other EXIF.
 * `taken`: when, where the picture does not say it itself.
 */
export async function addPhotograph(
  pieceId: number,
  data: Buffer,
  person: Person,
  at: Date,
  { step: stepId, taken = null }: { step?: number; taken?: Date | null } = {},
) {
  const made = await inWorker('picture', new Uint8Array(data)).catch((error: Error) => {
    throw error.name === 'RangeError' ? fail(415, 'not-a-picture', error.message) : error
  })
  const [picture, thumb] = [Buffer.from(made.full), Buffer.from(made.thumb)]
  const address = createHash('sha256').update(picture).update(String(pieceId)).digest('hex')
  return onPiece(pieceId, at, person, async tx => {
    const step = stepId
      ? await tx.row<{ title: string }>('SELECT title FROM plan_step WHERE id = :stepId AND piece_id = :pieceId', {
          stepId,
          pieceId,
        })
      : null
    if (stepId && !step) throw notFound('step')
    await tx.run(
      `INSERT INTO photograph (piece_id, step_id, taken_at, added_at, width, height, address, picture, thumb)
          VALUES (:pieceId, :stepId, :takenAt, :at, :width, :height, :address, :picture, :thumb)
          ON DUPLICATE KEY UPDATE step_id = COALESCE(VALUES(step_id), step_id)`,
      {
        ...{
          pieceId,
          stepId: stepId ?? null,
          takenAt: made.takenAt ?? taken,
          at,
          width: made.width,
          height: made.height,
        },
        ...{ address, picture, thumb },
      },
    )
    return { kind: 'photograph', says: step ? `Photograph of: ${step.title}` : 'Photograph added', result: { address } }
  })
}

export async function readPhotograph(address: string, size: 'full' | 'thumb'): Promise<Buffer> {
  const row = /^[0-9a-f]{64}$/.test(address)
    ? await db().row<{ data: Buffer }>(
        `SELECT ${size === 'full' ? 'picture' : 'thumb'} AS data FROM photograph WHERE address = :address`,
        { address },
      )
    : null
  if (!row) throw notFound('photograph')
  return row.data
}

/** Names a photograph, or says which earlier one it belongs beside. */
/** How the log tells a change of a photograph. */
function changeSaid({ before, released, caption }: z.infer<typeof s.changePhotograph>): string {
  if (before !== undefined) return before ? 'Photographs paired, before and after' : 'A pair of photographs parted'
  if (released !== undefined)
    return released ? 'The client may see a photograph' : 'The client sees a photograph no more'
  return `Photograph named: ${caption}`
}

export async function changePhotograph(
  address: string,
  input: z.infer<typeof s.changePhotograph>,
  person: Person,
  at: Date,
) {
  const row = await db().row<{
    id: number
    piece_id: number
    caption: string
    before_id: number | null
    released: 0 | 1
  }>('SELECT id, piece_id, caption, before_id, released FROM photograph WHERE address = :address', { address })
  if (!row) throw notFound('photograph')
  return onPiece(row.piece_id, at, person, async tx => {
    const now = await tx.row<{ row_version: number }>(
      'SELECT row_version FROM photograph WHERE id = :id FOR UPDATE',
      row,
    )
    if (now?.row_version !== input.rowVersion) throw stale()
    const before = input.before
      ? await tx.row<{ id: number }>(
          'SELECT id FROM photograph WHERE address = :before AND piece_id = :pieceId AND id <> :id',
          { before: input.before, pieceId: row.piece_id, id: row.id },
        )
      : null
    if (input.before && !before)
      throw fail(422, 'invalid', 'Pair it with another photograph of this piece.', {
        before: 'Choose another photograph.',
      })
    await tx.run(
      `UPDATE photograph
          SET caption = :caption, before_id = :beforeId, released = :released, row_version = row_version + 1
          WHERE id = :id`,
      {
        id: row.id,
        caption: input.caption ?? row.caption,
        released: input.released ?? Boolean(row.released),
        beforeId: input.before === undefined ? row.before_id : (before?.id ?? null),
      },
    )
    return {
      kind: 'photograph',
      says: changeSaid(input),
      result: { ok: true },
    }
  })
}
