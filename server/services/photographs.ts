import { createHash } from 'node:crypto'
import exifr from 'exifr'
import sharp from 'sharp'
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
