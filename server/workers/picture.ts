import exifr from 'exifr'
import sharp from 'sharp'

const FULL_PX = 2560
const THUMB_PX = 320
export const MOST_PIXELS = 80_000_000
/** sharp gives up a picture after this. */
const EACH_S = 10

/** Kinds of picture that are decoded, by their first bytes; nothing else reaches the decoder. */
const KINDS: readonly [format: string, is: (head: Buffer) => boolean][] = [
  ['jpeg', h => h[0] === 0xff && h[1] === 0xd8 && h[2] === 0xff],
  ['png', h => h.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))],
  ['webp', h => h.toString('latin1', 0, 4) === 'RIFF' && h.toString('latin1', 8, 12) === 'WEBP'],
  ['heif', h => h.toString('latin1', 4, 8) === 'ftyp' && /^(avif|avis)$/.test(h.toString('latin1', 8, 12))],
]

export interface Picture {
  width: number
  height: number
  full: Uint8Array
  thumb: Uint8Array
  takenAt: Date | null
}

/**
 * A picture as JPEG up to 2560 px and a 320 px thumbnail; when it was taken is kept, all other EXIF dropped.
 * Kind, pixels and frames are looked at before anything is decoded. @throws RangeError in words for whoever sent it.
 */
export async function picture(bytes: Uint8Array): Promise<Picture> {
  const data = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const kind = KINDS.find(([, is]) => is(data.subarray(0, 16)))
  if (!kind)
    throw new RangeError('This is no picture that can be read here. Save it as JPEG, PNG or WebP and send it again.')
  const open = () => sharp(data, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 })
  const head = await open()
    .metadata()
    .catch(() => null)
  if (!head || head.format !== kind[0])
    throw new RangeError('This picture is damaged. Save it as JPEG, PNG or WebP and send it again.')
  if (head.width * head.height > MOST_PIXELS)
    throw new RangeError(
      `This picture has ${Math.round((head.width * head.height) / 1e6)} million points; ${MOST_PIXELS / 1e6} ` +
        'are the most. Send it smaller.',
    )
  if ((head.pages ?? 1) > 1) throw new RangeError('This picture moves. Send a single one.')
  try {
    const upright = () => open().timeout({ seconds: EACH_S }).rotate()
    const fit = { fit: 'inside', withoutEnlargement: true } as const
    const full = await upright()
      .resize(FULL_PX, FULL_PX, fit)
      .jpeg({ quality: 86 })
      .toBuffer({ resolveWithObject: true })
    const thumb = await sharp(full.data).resize(THUMB_PX, THUMB_PX, fit).jpeg({ quality: 80 }).toBuffer()
    const exif = (await exifr.parse(data, ['DateTimeOriginal']).catch(() => null)) as { DateTimeOriginal?: Date } | null
    const taken = exif?.DateTimeOriginal
    const year = taken instanceof Date ? taken.getFullYear() : Number.NaN
    return {
      width: full.info.width,
      height: full.info.height,
      full: new Uint8Array(full.data),
      thumb: new Uint8Array(thumb),
      takenAt: year > 1900 && year < 2100 ? taken! : null,
    }
  } catch {
    throw new RangeError('This picture cannot be read here. Save it as JPEG, PNG or WebP and send it again.')
  }
}
