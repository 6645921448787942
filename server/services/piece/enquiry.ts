/** A piece that is asked about before it is in, and what becomes of it. */
import type { z } from 'zod'
import { FOUND_IN, templateOf } from '#core/estimate'
import { UNPLACED } from '#core/piece'
import { LENGTH_MM } from '#core/units'
import type * as s from '#shared/schemas'
import { transaction } from '../../database/db'
import { takeAdvised } from '../plan/choose'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { insertFinding } from './findings'
import { insertPiece, lengthOf } from './pieces'
import { readPiece } from './read'
import { saidFinish } from './saidFinish'

const inMm = (mm: number) => `${Math.max(LENGTH_MM.least, mm)} mm`

function partsOf(input: z.output<typeof s.enquire>, size: { length: number; width: number; height: number }) {
  const faces = templateOf(input.kind, size)
  return [...new Set(faces.map(f => f.part))].map(name => ({
    name,
    scope: 'refinish' as const,
    faces: faces
      .filter(f => f.part === name)
      .map(f => ({
        ...{ name: f.name, rank: f.rank, shape: f.shape, orientation: f.orientation, count: f.count * input.count },
        ...{ length: inMm(f.length_mm), width: inMm(f.width_mm), species: input.species },
        substrate: input.veneered && f.shape === 'flat' ? ('veneer' as const) : ('solid' as const),
        veneer: '',
      })),
  }))
}

/** An enquiry: the faces of its kind in its size, what its client can tell of it, and the way that is advised. */
export const enquire = (input: z.output<typeof s.enquire>, person: Person, at: Date): Promise<{ id: number }> =>
  transaction(async tx => {
    const { length_unit } = await readShop(tx)
    const size = {
      length: lengthOf(input.length, length_unit, 'length'),
      width: lengthOf(input.width, length_unit, 'width'),
      height: lengthOf(input.height, length_unit, 'height'),
    }
    const { name, client, use, tone, sheen, lead } = input
    const piece = {
      ...{ name, client, use, tone, sheen, lead, note: '', age: 'keep' as const, dueOn: null, rustic: false },
      ...{ period: 'unknown' as const, refinished: 'unknown' as const, keepPatina: false },
      parts: partsOf(input, size),
    }
    const says = `Asked about: ${name}, for ${client.name}; ${input.length} × ${input.width} × ${input.height}`
    const id = await insertPiece(tx, piece, { state: 'enquiry', says }, person, at)
    const { faces } = await readPiece(tx, id)
    for (const face of faces)
      for (const [kind, grade] of FOUND_IN[input.condition])
        await insertFinding(tx, { faceId: face.id, kind, grade, wish: 'mend', note: '', place: UNPLACED })
    if (input.condition === 'bare')
      await saidFinish(
        tx,
        { piece: id, group: 'A', layer: 1, finish: 'none', word: 'Bare, by what was told of it' },
        person,
        at,
      )
    await takeAdvised(tx, id, input.finish, at)
    return { id }
  })

const SAYS = { active: 'It came in', declined: 'It is not to be done', enquiry: 'It is asked about again' } as const
/** From which states it may become another. */
const FROM = { active: ['enquiry', 'declined', 'part-done'], declined: ['enquiry'], enquiry: ['declined'] } as const

/** An enquiry comes in, or is declined; both can be taken back. */
export const becomes = (id: number, input: z.infer<typeof s.enquiryBecomes>, person: Person, at: Date) =>
  transaction(async tx => {
    const { piece } = await readPiece(tx, id, true)
    if (piece.row_version !== input.rowVersion) throw stale()
    if (!(FROM[input.becomes] as readonly string[]).includes(piece.state))
      throw fail(409, 'nothing', 'This piece is not where it was. Load the page again.')
    const goesOn = piece.state === 'part-done'
    await tx.run(
      `UPDATE piece
          SET state = :becomes, taken_in_at = IF(:becomes = 'active' AND NOT :goesOn, :at, taken_in_at),
            handed_over_at = NULL, renew_on = NULL, row_version = row_version + 1
          WHERE id = :id`,
      { id, becomes: input.becomes, at, goesOn },
    )
    if (goesOn) await tx.run('UPDATE hand_over SET back_at = :at WHERE piece_id = :id AND back_at IS NULL', { id, at })
    const says = goesOn ? 'It came back, to be gone on with' : SAYS[input.becomes]
    await log(tx, { ...{ pieceId: id, kind: 'taken-in', says, at, recordedAt: at, personId: person.id } })
    await tell(tx, 'pieces', id, at)
    await tell(tx, 'piece', id, at)
    return { ok: true }
  })
