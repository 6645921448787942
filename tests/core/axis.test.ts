/** The axis of the timetable, and rows of what overlaps. */
import { describe, expect, it } from 'vitest'
import { dayColumns, momentAt, rowsOf, xOf } from '#core/timetable/axis'
import { at, hours } from '../facts'

describe('days beside each other', () => {
  const week = dayColumns(hours, '2026-11-30', 7)
  it('fill the width, closed days narrow', () => {
    expect(week.reduce((sum, c) => sum + c.width, 0)).toBeCloseTo(1)
    expect(week[5]!.width / week[0]!.width).toBeCloseTo(0.2)
    expect(week[5]!.open).toEqual([])
  })
  it('put opening, middle and night where they belong', () => {
    expect(xOf(week, at('2026-11-30T07:30'))).toBe(0)
    expect(xOf(week, at('2026-11-30T12:15'))).toBeCloseTo(week[0]!.width / 2)
    expect(xOf(week, at('2026-11-30T23:00'))).toBeCloseTo(week[1]!.left)
    expect(xOf(week, at('2026-11-29T23:00'))).toBe(0)
    expect(xOf(week, at('2026-12-20T23:00'))).toBeCloseTo(1)
  })
  it('tell the moment at a place, on a quarter', () => {
    for (const time of ['2026-11-30T12:15', '2026-12-03T07:30', '2026-12-04T10:00'])
      expect(momentAt(week, xOf(week, at(time)))).toBe(at(time))
    expect(momentAt(week, 0.001) % 900_000).toBe(0)
    expect(momentAt(week, -1)).toBe(at('2026-11-30T07:30'))
  })
  it('know closures', () =>
    expect(dayColumns(hours, '2026-12-25', 1)[0]).toMatchObject({ open: [], left: 0, width: 1 }))
})
it('rows hold no two that overlap', () => {
  expect(
    rowsOf([
      { start: 0, end: 2 },
      { start: 1, end: 3 },
      { start: 2, end: 4 },
    ]),
  ).toEqual([0, 1, 0])
  expect(rowsOf([])).toEqual([])
})
