/**
 * The rules of the supervisor, keys and backups, without processes. Figures are shop defaults, unsourced, except where
 * a source stands beside.
 */
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { afterAll, describe, expect, it, test } from 'vitest'
import { readKeys, turnKeys } from '../../ops/keys'
import { logTo } from '../../ops/log'
import { keepRule } from '../../ops/nightly'
import { nextPause } from '../../ops/part'
import { idOf, isAlive, startOf } from '../../ops/process'
import { profileOf } from '../../ops/profile'

const dir = mkdtempSync(`${tmpdir()}/hantverk-test-`)
process.env.HANTVERK_DATA = dir
const profile = profileOf('crash')
afterAll(() => rmSync(dir, { recursive: true, force: true }))

describe('pauses between restarts', () => {
  test.each([
    [[0], 1000],
    [[0, 1000], 2000],
    [[0, 1000, 3000], 4000],
    [[0, 1000, 3000, 7000], 8000],
    [[0, 1, 2, 3, 4], null],
  ])('%j', (ends, pause) => expect(nextPause(ends, Math.max(...ends))).toBe(pause))
  it('begin anew after two quiet minutes, and never pass a minute', () => {
    expect(nextPause([0, 1000, 3000, 7000, 300_000], 300_000)).toBe(1000)
    expect(nextPause([1, 2, 3, 4], 4)).toBeLessThanOrEqual(60_000)
  })
})

describe('a process', () => {
  it('is known by its number and its start, so that a stale number is nobody', () => {
    const me = idOf(process.pid)
    expect(isAlive(me)).toBe(true)
    expect(isAlive({ ...me, started: '1' })).toBe(false)
    expect(isAlive({ pid: 0, started: '' })).toBe(false)
    expect(startOf(2 ** 22 + 1)).toBeNull()
  })
})

describe('keys', () => {
  it('are four, each its own, 64 signs of chance, for their owner alone', () => {
    const keys = readKeys(profile)
    const four = [keys.session, keys.links, keys.pin, keys.database]
    expect(new Set(four).size).toBe(4)
    for (const key of four) expect(key).toMatch(/^[0-9a-f]{64}$/)
    for (const name of ['session', 'links', 'pin', 'database'])
      expect(statSync(`${profile.dir}/keys/${name}`).mode & 0o777).toBe(0o600)
    expect(readKeys(profile)).toEqual(keys)
  })
  it('that others could read, or that are too short, stop the start', () => {
    for (const mode of [0o640, 0o604, 0o666]) {
      chmodSync(`${profile.dir}/keys/links`, mode)
      expect(() => readKeys(profile)).toThrow(/can be read by others.*chmod 600/)
    }
    chmodSync(`${profile.dir}/keys/links`, 0o600)
    const was = readFileSync(`${profile.dir}/keys/pin`, 'utf8')
    writeFileSync(`${profile.dir}/keys/pin`, 'short')
    expect(() => readKeys(profile)).toThrow(/too short/)
    writeFileSync(`${profile.dir}/keys/pin`, was)
  })
  it('when turned are new, and the session key before counts for a day', () => {
    const before = readKeys(profile)
    turnKeys(profile)
    const now = readKeys(profile)
    for (const name of ['session', 'links', 'pin', 'database'] as const) expect(now[name]).not.toBe(before[name])
    expect(now.sessionBefore).toBe(before.session)
    const hours = (Date.parse(now.sessionBeforeUntil) - Date.now()) / 3_600_000
    expect(hours).toBeGreaterThan(23.9)
    expect(hours).toBeLessThanOrEqual(24)
    writeFileSync(`${profile.dir}/keys/session.until`, new Date(Date.now() - 1000).toISOString())
    expect(readKeys(profile).sessionBefore).toBe('')
  })
})

describe('backups that are kept', () => {
  const days = (from: string, n: number) =>
    Array.from({ length: n }, (_, i) =>
      new Date(Date.parse(`${from}T00:00:00Z`) + i * 86_400_000).toISOString().slice(0, 10),
    )
  it('are the newest seven, and the last of each of the newest five weeks', () => {
    const { keep, drop } = keepRule(days('2026-09-01', 60))
    expect(keep).toEqual([
      '2026-10-30',
      '2026-10-29',
      '2026-10-28',
      '2026-10-27',
      '2026-10-26',
      '2026-10-25',
      '2026-10-24',
      '2026-10-18',
      '2026-10-11',
      '2026-10-04',
    ])
    expect(keep.length + drop.length).toBe(60)
  })
  it('stay when there are few, whatever their gaps', () =>
    expect(keepRule(['2026-01-01', '2026-03-01']).drop).toEqual([]))
})

describe('a log', () => {
  it('is turned when it is full, five are kept, none is emptied', () => {
    const write = logTo(`${dir}/x.log`)
    for (let i = 0; i < 33; i++) write(`${i} `.padEnd(1_000_000, '.'))
    expect([1, 2, 3, 4, 5].map(n => existsSync(`${dir}/x.log.${n}`))).toEqual([true, true, true, true, true])
    expect(existsSync(`${dir}/x.log.6`)).toBe(false)
    expect(readFileSync(`${dir}/x.log.1`, 'utf8').startsWith('24 ')).toBe(true)
    expect(statSync(`${dir}/x.log`).mode & 0o777).toBe(0o600)
  })
})
