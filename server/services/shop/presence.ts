/** When people are there, and what they may be trusted with. */
import type { z } from 'zod'
import type { Skill } from '#core/schedule'
import { openingsSaid } from '#core/timetable'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import { atTheBench, type Person, type PersonRow } from './person'

export interface PersonPresence {
  id: number
  name: string
  rowVersion: number
  /** none: all of them */
  skills: Skill[]
  /** minutes of the day by ISO weekday; null: the shop's hours */
  week: Record<number, [number, number][]> | null
  off: { from: string; until: string; why: string }[]
}

/** Everybody who works at the bench. */
export async function readPresence(on: Db = db()): Promise<PersonPresence[]> {
  const [people, skills, openings, off] = await Promise.all([
    on.rows<Pick<PersonRow, 'id' | 'name' | 'row_version'>>(
      `SELECT id, name, row_version FROM person p WHERE ${atTheBench('p')} ORDER BY name`,
    ),
    on.rows<{ person_id: number; skill: Skill }>('SELECT person_id, skill FROM person_skill'),
    on.rows<{ person_id: number; weekday: number; open_min: number; close_min: number }>(
      'SELECT * FROM person_opening ORDER BY person_id, weekday, open_min',
    ),
    on.rows<{ person_id: number; from_day: string; until_day: string; why: string }>(
      'SELECT * FROM day_off ORDER BY person_id, from_day',
    ),
  ])
  return people.map(({ id, name, row_version }) => {
    const hours = openings.filter(o => o.person_id === id)
    const week: Record<number, [number, number][]> = {}
    for (const o of hours) (week[o.weekday] ??= []).push([o.open_min, o.close_min])
    return {
      ...{ id, name, rowVersion: row_version, week: hours.length ? week : null },
      skills: skills.filter(k => k.person_id === id).map(k => k.skill),
      off: off
        .filter(o => o.person_id === id)
        .map(({ from_day, until_day, why }) => ({ from: from_day, until: until_day, why })),
    }
  })
}

export const changePresence = (id: number, input: z.infer<typeof s.presenceChange>, by: Person, at: Date) =>
  transaction(async tx => {
    const person = await tx.row<PersonRow>('SELECT * FROM person WHERE id = :id AND active FOR UPDATE', { id })
    if (!person) throw notFound('person')
    if (person.row_version !== input.rowVersion) throw stale()
    for (const table of ['person_skill', 'person_opening', 'day_off'])
      await tx.run(`DELETE FROM ${table} WHERE person_id = :id`, { id })
    for (const skill of new Set(input.skills))
      await tx.run('INSERT INTO person_skill (person_id, skill) VALUES (:id, :skill)', { id, skill })
    for (const [i, spans] of (input.week ?? []).entries())
      for (const [open, close] of spans)
        await tx.run(
          `INSERT INTO person_opening (person_id, weekday, open_min, close_min)
              VALUES (:id, :weekday, :open, :close)`,
          { id, weekday: i + 1, open, close },
        )
    for (const o of input.off)
      await tx.run('INSERT INTO day_off (person_id, from_day, until_day, why) VALUES (:id, :from, :until, :why)', {
        ...o,
        id,
      })
    await tx.run('UPDATE person SET row_version = row_version + 1 WHERE id = :id', { id })
    const week = input.week
      ?.map(openingsSaid)
      .map(day => day || 'off')
      .join(' · ')
    const says = [
      input.skills.length ? input.skills.join(', ') : 'every kind of work',
      week ? `there ${week}` : "the shop's hours",
      ...input.off.map(o => `off ${o.from}${o.until === o.from ? '' : ` to ${o.until}`}`),
    ]
    await logShop(tx, 'people', `${person.name}: ${says.join('; ')}`.slice(0, 1000), at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
