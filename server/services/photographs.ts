import { createHash } from 'node:crypto'
import exifr from 'exifr'
import sharp from 'sharp'
import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { db } from '../database/db'
import type { Person } from './people'
import { onPiece } from './pieces'

const FULL_PX = 2560
const THUMB_PX = 320
const MOST_BYTES = 25_000_000
const MOST_PIXELS = 80_000_000

/** Stores a picture as JPEG up to 2560 px and a 320 px thumbnail; keeps when it was taken, drops all other EXIF. */
export async function addPhotograph(pieceId: number, data: Buffer, person: Person, at: Date) {
  if (data.length > MOST_BYTES) throw fail(413, 'too-big', 'This picture is larger than 25 MB. Send it smaller.')
  let picture: { data: Buffer, info: { width: number, height: number } }
  let thumb: Buffer
  try {
    const upright = () => sharp(data, { limitInputPixels: MOST_PIXELS }).rotate()
    picture = await upright().resize(FULL_PX, FULL_PX, { fit: 'inside', withoutEnlargement: true }).jpeg({ quality: 86 }).toBuffer({ resolveWithObject: true })
    thumb = await upright().resize(THUMB_PX, THUMB_PX, { fit: 'inside', withoutEnlargement: true }).jpeg({ quality: 80 }).toBuffer()
  }
  catch { throw fail(415, 'not-a-picture', 'This picture cannot be read here. Save it as JPEG, PNG or WebP and send it again.') }
  const exif = await exifr.parse(data, ['DateTimeOriginal']).catch(() => null) as { DateTimeOriginal?: Date } | null
  const taken = exif?.DateTimeOriginal
  const takenAt = taken instanceof Date && Number.isFinite(taken.getTime()) ? taken : null
  const address = createHash('sha256').update(picture.data).update(String(pieceId)).digest('hex')
  return onPiece(pieceId, at, person, async (tx) => {
    await tx.run(
      'INSERT IGNORE INTO photograph (piece_id, taken_at, added_at, width, height, address, picture, thumb) VALUES (:pieceId, :takenAt, :at, :width, :height, :address, :picture, :thumb)',
      { pieceId, takenAt, at, width: picture.info.width, height: picture.info.height, address, picture: picture.data, thumb })
    return { kind: 'photograph', says: 'Photograph added', result: { address } }
  })
}

export async function readPhotograph(address: string, size: 'full' | 'thumb'): Promise<Buffer> {
  const row = /^[0-9a-f]{64}$/.test(address) ? await db().row<{ data: Buffer }>(`SELECT ${size === 'full' ? 'picture' : 'thumb'} AS data FROM photograph WHERE address = :address`, { address }) : null
  if (!row) throw notFound('photograph')
  return row.data
}

/** Names a photograph, or says which earlier one it belongs beside. */
export async function changePhotograph(address: string, input: z.infer<typeof s.changePhotograph>, person: Person, at: Date) {
  const row = await db().row<{ id: number, piece_id: number, caption: string, before_id: number | null }>('SELECT id, piece_id, caption, before_id FROM photograph WHERE address = :address', { address })
  if (!row) throw notFound('photograph')
  return onPiece(row.piece_id, at, person, async (tx) => {
    const before = input.before ? await tx.row<{ id: number }>('SELECT id FROM photograph WHERE address = :before AND piece_id = :pieceId AND id <> :id', { before: input.before, pieceId: row.piece_id, id: row.id }) : null
    if (input.before && !before) throw fail(422, 'invalid', 'Pair it with another photograph of this piece.', { before: 'Choose another photograph.' })
    await tx.run('UPDATE photograph SET caption = :caption, before_id = :beforeId WHERE id = :id', { id: row.id, caption: input.caption ?? row.caption, beforeId: input.before === undefined ? row.before_id : before?.id ?? null })
    return { kind: 'photograph', says: input.before ? 'Photographs paired, before and after' : input.before === null ? 'A pair of photographs parted' : `Photograph named: ${input.caption}`, result: { ok: true } }
  })
}
