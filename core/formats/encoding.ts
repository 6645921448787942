/** The letters of a file that somebody else wrote. */

/**
 * A text file's letters: UTF-16 where its mark says so, UTF-8 where it is that throughout, else Windows-1252, as
 * spreadsheets of western Europe save a CSV. What is no text keeps U+FFFD for what cannot be read.
 */
export function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes)
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    const isText = bytes.every(n => n >= 0x20 || n === 0x09 || n === 0x0a || n === 0x0d)
    return new TextDecoder(isText ? 'windows-1252' : 'utf-8').decode(bytes)
  }
}
