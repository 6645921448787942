import { appendFileSync, existsSync, renameSync, statSync } from 'node:fs'

const MOST_BYTES = 5_000_000
const KEEP = 5

/** Appends to a log; when it is full it becomes `.1`, that one `.2`, and so on: five are kept, none is ever emptied. */
export function logTo(path: string): (text: string | Buffer) => void {
  let size = existsSync(path) ? statSync(path).size : 0
  return text => {
    try {
      if (size > MOST_BYTES) {
        for (let n = KEEP - 1; n >= 1; n--)
          if (existsSync(`${path}.${n}`)) renameSync(`${path}.${n}`, `${path}.${n + 1}`)
        renameSync(path, `${path}.1`)
        size = 0
      }
      appendFileSync(path, text, { mode: 0o600 })
      size += text.length
    } catch {
      /* a full disk must not end what it is the log of */
    }
  }
}
