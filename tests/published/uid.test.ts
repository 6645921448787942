/** Names that are the same everywhere, and cards of people: by their standards. */
import { parse } from 'vcard4'
import { describe, expect, it } from 'vitest'
import { readPeople, writeCards } from '#core/formats'
import { uuid5 } from '../../server/services/platform/uid'

describe('a name-based UUID', () => {
  // RFC 9562, appendix A.4: version 5 of "www.example.com" within the namespace of domain names
  it('is that of the standard', () => {
    expect(uuid5('6ba7b810-9dad-11d1-80b4-00c04fd430c8', 'www.example.com')).toBe(
      '2ed6657d-e927-568b-95e1-2665a8aea6a2',
    )
  })
})

describe('cards of people (RFC 6350)', () => {
  const people = [
    { name: 'Åsa Ek, "Ltd"; Sons', email: 'asa@example.invalid', phone: '+46 70 123' },
    { name: 'Ö'.repeat(100), email: '', phone: '' },
  ]
  const text = writeCards(people.map((p, i) => ({ ...p, uid: uuid5('6ba7b810-9dad-11d1-80b4-00c04fd430c8', `${i}`) })))
  it('are read by a second library as they were meant', () => {
    const cards = parse(text) as unknown as { getProperty: (n: string) => { value: unknown }[] }[]
    expect(cards).toHaveLength(2)
    expect(cards[0]!.getProperty('FN')[0]!.value).toBe(people[0]!.name)
    expect(cards[0]!.getProperty('EMAIL')[0]!.value).toBe(people[0]!.email)
    expect(cards[0]!.getProperty('TEL')[0]!.value).toBe(people[0]!.phone)
    expect(cards[1]!.getProperty('FN')[0]!.value).toBe(people[1]!.name)
  })
  it('have no line longer than 75 octets, and end each by CR LF', () => {
    const lines = text.split('\r\n')
    expect(lines.every(l => new TextEncoder().encode(l).length <= 75)).toBe(true)
    expect(text).not.toMatch(/[^\r]\n/)
  })
  it('come back as they went', () => {
    expect(readPeople(text)).toEqual({ lines: people.map((p, i) => ({ line: i + 1, ...p })), wrong: [] })
  })
  // RFC 2426 (version 3), as address books write it: parts of a name, types, pictures
  it('of the version before are read as well', () => {
    const old =
      'BEGIN:VCARD\r\nVERSION:3.0\r\nN:Ek;Åsa;;;\r\nTEL;TYPE=CELL:070-1\r\nPHOTO;ENCODING=b:AAAA\r\nEND:VCARD\r\n'
    expect(readPeople(old).lines).toEqual([{ line: 1, name: 'Åsa Ek', email: '', phone: '070-1' }])
  })
})
