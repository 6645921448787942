import { textOf } from '#core/formats/encoding'

/** The text of the file that was chosen, in whatever letters it was saved; undefined: none was chosen. */
export async function chosenText(event: Event): Promise<string | undefined> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  const text = file && textOf(new Uint8Array(await file.arrayBuffer()))
  // the same file may be chosen again
  input.value = ''
  return text
}
