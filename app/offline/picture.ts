const MOST_PX = 2560
const SMALL_BYTES = 1_000_000
const QUALITY = 0.85

/**
 * A photograph as it travels: not larger than the shop keeps it, so that a device without a line has room for many, and
 * when it was taken, which a picture drawn anew does not say itself. What cannot be read here goes as it is.
 */
export async function shrunk(file: File): Promise<{ picture: Blob; taken?: string }> {
  const taken = await takenAt(file)
  if (file.size <= SMALL_BYTES) return { picture: file, taken }
  try {
    const image = await createImageBitmap(file)
    const scale = Math.min(1, MOST_PX / Math.max(image.width, image.height))
    const canvas = new OffscreenCanvas(Math.round(image.width * scale), Math.round(image.height * scale))
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    image.close()
    return { picture: await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY }), taken }
  } catch {
    return { picture: file, taken }
  }
}

async function takenAt(file: File): Promise<string | undefined> {
  try {
    const { default: exifr } = await import('exifr')
    const read = (await exifr.parse(file, ['DateTimeOriginal'])) as { DateTimeOriginal?: Date } | undefined
    return read?.DateTimeOriginal?.toISOString()
  } catch {
    return undefined
  }
}
