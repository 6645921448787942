import { expect } from '@playwright/test'
import { GATES, METHODS, STEP_KINDS } from '../../core/acts'
import { ROUTES, FINDING_KINDS, FINISH_CLASSES } from '../../core/piece'
import { HOUSE_METHODS } from '../../core/house'
import { TEST_SLUGS } from '../../core/identify'
import { MATERIALS } from '../../core/materials'
import { RULES } from '../../core/rules'
import { HAZARDS } from '../../core/safety'
import { SPECIES } from '../../core/wood'
import { as, test } from './page'

/** Words of the trade that are written with a hyphen, or as their slug: they may be read. */
const WORDS = ['semi-gloss', 'primer-surfacer', 'take-apart', 'before-1850', 'after-1990']
const SLUGS = [
  ...[...STEP_KINDS, ...GATES, ...METHODS, ...ROUTES, ...TEST_SLUGS, ...FINDING_KINDS, ...FINISH_CLASSES],
  ...Object.values(HOUSE_METHODS).flatMap(m => Object.keys(m.options)),
  ...[...MATERIALS, ...RULES, ...HAZARDS, ...SPECIES].map(x => x.slug),
].filter(slug => slug.includes('-') && !WORDS.includes(slug))
const found = (text: string) => SLUGS.filter(slug => new RegExp(`(?<![\\w-])${slug}(?![\\w-])`).test(text))

/** Every page of the application, those of a piece for one that is far along. */
const PAGES = [
  '/',
  '/pieces',
  '/timetable',
  '/colour',
  '/store',
  '/answers',
  '/shop',
  '/shop?part=people',
  '/shop?part=methods',
  '/shop?part=figures',
  '/judgement',
  '/mixing',
]
const OF_PIECE = ['', '/walk', '/finish', '/wood', '/hazards', '/parts', '/photographs', '/patch', '/report']
const WORK = ['/route', '/plan', '/colour', '/client', '/log']

test('no slug is read on any page, in the log or in a letter', async ({ browser, watched }) => {
  test.setTimeout(240_000)
  const page = await as(browser, 'ingrid', watched)
  const pieces = (await (await page.request.get('/api/pieces?state=all')).json()) as { id: number; name: string }[]
  const some = ['Map chest, eight drawers', 'Sea chest', 'Serving table', "Collector's cabinet"]
  const ids = pieces.filter(p => some.includes(p.name)).map(p => p.id)
  expect(ids).toHaveLength(some.length)
  const bad: string[] = []
  for (const path of [...PAGES, ...ids.flatMap(id => [...OF_PIECE, ...WORK].map(sub => `/pieces/${id}${sub}`))]) {
    await page.goto(path)
    await page.waitForLoadState('networkidle')
    for (const slug of found(await page.locator('body').innerText())) bad.push(`${path}: ${slug}`)
  }
  for (const { id } of pieces) {
    const log = await (await page.request.get(`/api/pieces/${id}/log`)).json()
    const says = (log as { says: string }[]).map(entry => entry.says).join('\n')
    for (const slug of found(says)) bad.push(`the log of ${id}: ${slug}`)
  }
  const mails = (await (await fetch(`${process.env.HANTVERK_MAILS}/mails`)).json()) as { text: string }[]
  expect(mails.length).toBeGreaterThan(2)
  for (const mail of mails) for (const slug of found(mail.text)) bad.push(`a letter: ${slug}`)
  expect([...new Set(bad)]).toEqual([])
})
