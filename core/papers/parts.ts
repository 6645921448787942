/** Small parts that several papers share. */
import type { PaperPart } from './paper'

export const heading = (text: string): PaperPart => ({ kind: 'heading', text })
export const small = (text: string): PaperPart => ({ kind: 'text', text, tone: 'small' })
/** What has nothing to say is left out, with its heading. */
export const under = (head: string, parts: readonly PaperPart[]): PaperPart[] =>
  parts.length ? [heading(head), ...parts] : []
export const listUnder = (head: string, items: readonly string[]): PaperPart[] =>
  items.length ? [heading(head), { kind: 'list', items }] : []
