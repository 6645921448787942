/** vCard 4 (RFC 6350): people written and read. */
import ICAL from 'ical.js'
import { type Column, readLines, type TableRead } from './table'

export interface Card {
  name: string
  email: string
  phone: string
  /** the same for the same person, whenever it is written */
  uid?: string
}
export type CardLine = Card & { line: number }
/** More than this nobody reads in at once. */
const MOST = 5000
const [LONGEST_NAME, LONGEST_MAIL, LONGEST_PHONE] = [120, 200, 40] as const

const escaped = (text: string) => text.replaceAll(/[\\;,]/g, String.raw`\$&`).replaceAll(/\r?\n/g, String.raw`\n`)
const OCTETS = 75
const octetsOf = (text: string) => new TextEncoder().encode(text).length
/** A line, folded before it grows longer than the standard allows, never within a letter. */
function folded(line: string): string {
  const lines = ['']
  for (const letter of line) {
    if (octetsOf(lines.at(-1)! + letter) > OCTETS) lines.push(' ')
    lines[lines.length - 1] += letter
  }
  return lines.map(l => `${l}\r\n`).join('')
}
/** Cards one after the other; lines end and are folded as the standard says. */
export const writeCards = (cards: readonly Card[]): string =>
  cards
    .flatMap(({ name, email, phone, uid }) => [
      ...['BEGIN:VCARD', 'VERSION:4.0', `FN:${escaped(name)}`],
      ...(uid ? [`UID:urn:uuid:${uid}`] : []),
      ...(email ? [`EMAIL:${escaped(email)}`] : []),
      ...(phone ? [`TEL;VALUE=text:${escaped(phone)}`] : []),
      'END:VCARD',
    ])
    .map(folded)
    .join('')

const first = (card: ICAL.Component, name: string): string => {
  const value: unknown = card.getFirstPropertyValue(name)
  const text = Array.isArray(value) ? value.flat().join(' ') : String(value ?? '')
  // a semicolon may stand escaped where none is needed
  return text
    .replaceAll(String.raw`\;`, ';')
    .replace(/^(mailto|tel):/i, '')
    .trim()
}
/** A name from its parts, where it is not written whole: given names before the family's. */
function nameOf(card: ICAL.Component): string {
  const whole = first(card, 'fn')
  if (whole) return whole
  const parts: unknown = card.getFirstPropertyValue('n')
  if (!Array.isArray(parts)) return ''
  const [family = '', given = ''] = parts.map(p => (Array.isArray(p) ? p.join(' ') : String(p ?? '')).trim())
  return [given, family].filter(Boolean).join(' ')
}
/**
 * Cards of a file, of any version that has names: each with its number in the file, from 1.
 * @throws RangeError in words, for what holds no cards.
 */
function readCards(text: string): TableRead<CardLine> {
  const blocks = [...text.replace(/^\uFEFF/, '').matchAll(/^BEGIN:VCARD\b[\s\S]*?^END:VCARD\b/gim)].map(m => m[0])
  if (blocks.length === 0) throw new RangeError('This is no vCard file. Take one that ends in .vcf.')
  if (blocks.length > MOST) throw new RangeError(`${blocks.length} people are too many at once; ${MOST} at the most.`)
  const read: TableRead<CardLine> = { lines: [], wrong: [] }
  for (const [i, block] of blocks.entries()) {
    const line = i + 1
    try {
      const card = new ICAL.Component(ICAL.parse(block) as ConstructorParameters<typeof ICAL.Component>[0])
      const [email, phone] = [first(card, 'email'), first(card, 'tel')]
      read.lines.push(checkedCard({ line, name: nameOf(card), email, phone }))
    } catch (error) {
      read.wrong.push({ line, says: error instanceof RangeError ? error.message : 'this card cannot be read' })
    }
  }
  return read
}
/** The same, where it can be kept. @throws RangeError in words. */
function checkedCard<C extends Card>(card: C): C {
  if (!card.name) throw new RangeError('there is no name')
  if (card.name.length > LONGEST_NAME || card.email.length > LONGEST_MAIL || card.phone.length > LONGEST_PHONE)
    throw new RangeError('a text is too long')
  if (card.email && !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(card.email))
    throw new RangeError(`"${card.email}" is no address`)
  return card
}

const COLUMNS: readonly Column<'name' | 'email' | 'phone'>[] = [
  { key: 'name', heads: ['name', 'client'], needed: true },
  { key: 'email', heads: ['mail', 'email', 'e-mail'] },
  { key: 'phone', heads: ['phone', 'telephone'] },
]
/** People of a vCard file, or of a table. @throws RangeError in words, for what is neither. */
export const readPeople = (text: string): TableRead<CardLine> =>
  /^\uFEFF?\s*BEGIN:VCARD/i.test(text)
    ? readCards(text)
    : readLines(
        text,
        COLUMNS,
        (line, cells) => checkedCard({ line, ...cells }),
        c => `"${c.name}${c.email && `, ${c.email}`}"`,
      )
