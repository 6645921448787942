import Papa from 'papaparse'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cellText, writeTable } from '#core/formats'

// RFC 4180, Common Format and MIME Type for CSV Files, section 2
describe('CSV by RFC 4180', () => {
  it('ends each line with CR LF, the last one too (2.1, 2.2)', () => {
    expect(writeTable(['aaa', 'bbb'], [['zzz', 'yyy']])).toBe('aaa,bbb\r\nzzz,yyy\r\n')
  })
  it('encloses what holds commas, quotes and line breaks, and doubles quotes (2.6, 2.7)', () => {
    const text = writeTable(['a', 'b', 'c'], [['x,y', 'line\r\nbreak', 'say "b"']])
    expect(text).toBe('a,b,c\r\n"x,y","line\r\nbreak","say ""b"""\r\n')
  })
  it('gives every line as many fields as the heading (2.4), whatever the texts are', () => {
    // an apostrophe before the beginning of a formula is read as the mark of a text
    const said = fc.string().filter(s => !/^'[=+\-@\t\r]/.test(s))
    const cell = fc.oneof(said, fc.double({ noNaN: true, noDefaultInfinity: true }), fc.constant(null))
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 20 }), rows => {
        const { data, errors } = Papa.parse<string[]>(writeTable(['a', 'b', 'c'], rows), { skipEmptyLines: false })
        expect(errors).toEqual([])
        // the last line break ends a line, and begins none
        const lines = data.slice(1, -1)
        expect(lines).toHaveLength(rows.length)
        for (const [i, line] of lines.entries()) {
          expect(line).toHaveLength(3)
          for (const [j, c] of rows[i]!.entries()) {
            if (typeof c === 'string') expect(cellText(line[j]!)).toBe(c)
            else expect(line[j]).toBe(c === null ? '' : String(c))
          }
        }
      }),
    )
  })
  // common practice: spreadsheets take = + - @ for the beginning of a formula
  it('lets no text begin a formula, and leaves numbers alone', () => {
    const [line = []] = Papa.parse<string[]>(
      writeTable(['a', 'b', 'c', 'd'], [['=1+1', '+47', '@x', -1.5]]),
    ).data.slice(1)
    expect(line).toEqual(["'=1+1", "'+47", "'@x", '-1.5'])
  })
  // common practice where the comma is the decimal sign
  it('parts columns by a semicolon beside a decimal comma', () => {
    expect(writeTable(['a', 'b'], [[1.5, 'x;y']], 'comma')).toBe('a;b\r\n1,5;"x;y"\r\n')
  })
})
