import type { z } from 'zod'
import { keyOf, optionsOf, PACE_MIN_M2, PATCH_SIDE_MM, QUESTIONS, type WalkOption } from '#core/examine'
import { UNPLACED } from '#core/piece'
import { HAZARDS } from '#core/safety'
import { isWithin, LENGTH_MM, saidSlug } from '#core/units'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { firstPlace, insertFinding, ownerOf } from '../piece/findings'
import { lengthOf, onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import { faceArea, type PieceFile } from '../piece/rows'
import { readAir } from '../shop/air'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'

export const addTest = (id: number, input: z.infer<typeof s.addTest>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { faces }) => {
    if (!faces.some(f => f.finish_group === input.group))
      throw fail(422, 'invalid', `No face carries finish ${input.group}.`, {
        group: 'Choose a group of faces of this piece.',
      })
    await tx.run(
      `INSERT INTO finish_test (piece_id, test, result, spot, finish_group, layer, person_id, at)
          VALUES (:id, :test, :result, :spot, :group, :layer, :personId, :at)`,
      { ...input, id, personId: person.id, at },
    )
    const { concluded } = await readPiece(tx, id)
    const layer = concluded.finishes.find(f => f.group === input.group)!.layers[input.layer - 1]!
    return {
      kind: 'test',
      says:
        `Test ${saidSlug(input.test)}: ${input.result}. Finish ` +
        `${input.group}${input.layer > 1 ? `, layer ${input.layer}` : ''}: likely ${saidSlug(layer.finish)}, ` +
        `${Math.round(layer.certainty * 100)} %`,
      result: { ok: true },
    }
  })

export async function withdrawTest(id: number, person: Person, at: Date) {
  return onPiece(
    await ownerOf('SELECT piece_id FROM finish_test WHERE id = :id AND withdrawn_at IS NULL', id, 'test'),
    at,
    person,
    async (tx, { tests }) => {
      await tx.run('UPDATE finish_test SET withdrawn_at = :at WHERE id = :id', { id, at })
      return { kind: 'test', says: `Test withdrawn: ${tests.find(t => t.id === id)?.test ?? ''}`, result: { ok: true } }
    },
  )
}

async function insertEvidence(
  tx: Db,
  id: number,
  e: { kind: string; answer: 'yes' | 'no'; method: string },
  person: Person,
  at: Date,
) {
  await tx.run(
    `INSERT INTO evidence (piece_id, kind, answer, method, person_id, at)
        VALUES (:id, :kind, :answer, :method, :personId, :at)`,
    { ...e, id, personId: person.id, at },
  )
  return { kind: 'evidence', says: `${HAZARDS.find(h => h.slug === e.kind)!.name}: ${e.answer} (${e.method})` }
}
export const addEvidence = (id: number, input: z.infer<typeof s.addEvidence>, person: Person, at: Date) =>
  onPiece(id, at, person, async tx => ({ ...(await insertEvidence(tx, id, input, person, at)), result: { ok: true } }))

/**
 * Reads the swab that lies in the reader, for one spot. An unclear strip is no evidence, and in a real shop neither is
 * a simulated one.
 */
export async function readSwab(id: number, input: z.infer<typeof s.readSwab>, person: Person, at: Date) {
  const { swabUrl, mode } = useRuntimeConfig()
  await readPiece(db(), id)
  const got = await $fetch<{ lead: 'yes' | 'no' | 'unclear'; strip: string; simulated?: boolean }>(swabUrl, {
    query: { sample: `${id} ${input.spot}` },
    timeout: 4000,
    retry: 0,
  }).catch(() => null)
  if (!got || !['yes', 'no', 'unclear'].includes(got.lead) || (got.simulated && mode === 'shop'))
    throw fail(503, 'no-reader', 'No swab reader answers. Read the strip yourself and type the result in.')
  if (got.lead === 'unclear')
    throw fail(409, 'unclear', `Strip ${got.strip} cannot be read clearly. Swab another spot.`)
  const answer = got.lead
  return onPiece(id, at, person, async tx => ({
    ...(await insertEvidence(
      tx,
      id,
      {
        kind: 'lead',
        answer,
        method: `swab reader${got.simulated ? ' (simulated)' : ''}, strip ${got.strip}, ${input.spot}`.slice(0, 200),
      },
      person,
      at,
    )),
    result: { answer, strip: got.strip },
  }))
}

/** The first face that shows, of a part or of the piece: where a finding waits to be drawn. */
const waitingFaces = (file: PieceFile, part: string | null) => {
  const faces = file.faces.filter(f => f.scope === 'refinish' && (part === null || f.part === part))
  return [...faces].sort((a, b) => Number(b.face_rank === 'show') - Number(a.face_rank === 'show'))
}

/**
 * Records an answer of the walk. Options that are findings are recorded, to be drawn; an answer given again replaces
 * the older one.
 */
export const answerWalk = (id: number, input: z.infer<typeof s.answerWalk>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    let options: WalkOption[]
    try {
      options = optionsOf(input.key, input.options)
    } catch (error) {
      throw fail(422, 'invalid', (error as Error).message)
    }
    const [slug, part = null] = input.key.split('|')
    if (part !== null && !file.faces.some(f => f.part === part))
      throw fail(422, 'invalid', 'This part is not on this piece.')
    const question = QUESTIONS.find(q => q.slug === slug)!
    if ((question.per === 'part') !== (part !== null))
      throw fail(
        422,
        'invalid',
        `This question is asked of ${question.per === 'part' ? 'each part' : 'the whole piece'}.`,
      )
    const before = file.recorded.answers.find(a => a.key === keyOf(slug!, part))
    await tx.run(
      `INSERT INTO walk_answer (piece_id, question, options, person_id, at)
          VALUES (:id, :key, :options, :personId, :at)`,
      { id, key: input.key, options: input.options.join(','), personId: person.id, at },
    )
    const made: number[] = []
    const [face, ...others] = waitingFaces(file, part)
    for (const option of options) {
      const known =
        before?.options.includes(option.slug) ||
        (option.finding &&
          file.findings.some(
            f =>
              f.kind === option.finding && (part === null || file.faces.find(x => x.id === f.face_id)?.part === part),
          ))
      if (option.finding && face && !known)
        made.push(
          await insertFinding(tx, {
            faceId: face.id,
            kind: option.finding,
            grade: 2,
            wish: 'mend',
            note: '',
            // on one of several faces nobody said which
            place: others.length ? UNPLACED : firstPlace(option.finding),
          }),
        )
      if (option.substrate)
        await tx.run(
          `UPDATE face
              JOIN part ON part.id = face.part_id
              SET face.substrate = :substrate,
                face.veneer_mm = IF(:substrate = 'solid', NULL, face.veneer_mm),
                face.veneer_typed = IF(:substrate = 'solid', NULL, face.veneer_typed),
                face.row_version = face.row_version + 1
              WHERE part.piece_id = :id AND part.name = :part`,
          { substrate: option.substrate, id, part },
        )
    }
    return {
      kind: 'walk',
      says:
        `${question.asks}${part ? ` (${part})` : ''} ` +
        `${options.map(o => o.says || o.slug.replaceAll('-', ' ')).join(', ')}`,
      result: { findings: made },
    }
  })

export const addMoisture = (id: number, input: z.infer<typeof s.addMoisture>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { faces }) => {
    const face = faces.find(f => f.id === input.faceId)
    if (!face) throw fail(422, 'invalid', 'This face is not on this piece.', { faceId: 'Choose a face of this piece.' })
    const { air } = await readAir(at, tx)
    await tx.run(
      `INSERT INTO moisture_reading (face_id, reading_pct, thickness_mm, air_temperature_C, air_rh, person_id, at)
          VALUES (:faceId, :reading_pct, :thickness_mm, :t, :rh, :personId, :at)`,
      {
        faceId: input.faceId,
        reading_pct: input.reading_pct,
        thickness_mm: lengthOf(input.thickness, (await readShop(tx)).length_unit, 'thickness'),
        t: air?.temperature_C ?? null,
        rh: air?.rh ?? null,
        personId: person.id,
        at,
      },
    )
    return {
      kind: 'moisture',
      says: `Moisture of ${face.part}, ${face.name}: ${input.reading_pct} %${air ? '' : ', the air not known'}`,
      result: { ok: true },
    }
  })

export const addPatch = (id: number, input: z.infer<typeof s.addPatch>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { faces, facts }) => {
    const face = faces.find(f => f.id === input.faceId)
    if (!face) throw fail(422, 'invalid', 'This face is not on this piece.', { faceId: 'Choose a face of this piece.' })
    if (input.method === 'sanding' && facts.bans.includes('dry-sanding'))
      throw fail(409, 'forbidden', 'Dry sanding is forbidden on this piece until its hazards are settled. See Hazards.')
    const { length_unit } = await readShop(tx)
    const sides = { least: PATCH_SIDE_MM, most: LENGTH_MM.most }
    const size = {
      length_mm: lengthOf(input.length, length_unit, 'length', sides),
      width_mm: lengthOf(input.width, length_unit, 'width', sides),
    }
    if (size.length_mm * size.width_mm > faceArea(face) * 1e6)
      throw fail(422, 'invalid', 'The patch is larger than its face.', { length: 'Smaller than the face.' })
    const pace = input.minutes / ((size.length_mm * size.width_mm) / 1e6)
    if (!isWithin(pace, PACE_MIN_M2))
      throw fail(
        422,
        'invalid',
        `${Math.round(pace)} minutes for each square metre cannot be: look at the patch's size and minutes.`,
        { minutes: 'Look at size and minutes.' },
      )
    await tx.run(
      `INSERT INTO patch (face_id, method, length_mm, width_mm, minutes, result, note, person_id, at)
          VALUES (:faceId, :method, :length_mm, :width_mm, :minutes, :result, :note, :personId, :at)`,
      { ...input, ...size, length: undefined, width: undefined, personId: person.id, at },
    )
    return {
      kind: 'patch',
      says: `Timed patch on ${face.part}, ${face.name}: ${input.method}, ${input.minutes} min, ${input.result}`,
      result: { ok: true },
    }
  })
