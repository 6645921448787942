import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { WORDS } from '../../app/words/en'

const paths = (table: object, path = ''): string[] =>
  Object.entries(table).flatMap(([name, value]) =>
    typeof value === 'string' || Array.isArray(value) ? [path + name] : paths(value as object, `${path}${name}.`),
  )
const app = new URL('../../app/', import.meta.url)
const sources = readdirSync(app, { recursive: true, encoding: 'utf8' })
  .filter(file => /\.(vue|ts)$/.test(file) && !file.startsWith('words/'))
  .map(file => readFileSync(new URL(file, app), 'utf8'))
  .join('\n')
/** Beginnings of keys that are put together: `finding.${kind}`, wordOf('finish', slug). */
const tables = [...sources.matchAll(/`([\w.]+\.)\$\{/g)].map(m => m[1]!)
tables.push(...[...sources.matchAll(/wordOf\('(\w+)'/g)].map(m => `${m[1]}.`))
// the wishes on intake, each list under its own name
tables.push(...['use.', 'tone.', 'sheen.', 'age.', 'refinished.', 'period.'])

describe('words', () => {
  it('stand nowhere unused', () => {
    const unused = paths(WORDS).filter(key => {
      const named = ["'", '"', '`'].some(quote => sources.includes(`${quote}${key}${quote}`))
      return !named && !tables.some(table => key.startsWith(table))
    })
    expect(unused).toEqual([])
  })
})
