import type { z } from 'zod'
import type { Choice } from '#core/build'
import {
  comparePatches,
  examine,
  keyOf,
  optionsOf,
  PACE_MIN_M2,
  PATCH_SIDE_MM,
  QUESTIONS,
  scalePatch,
  type WalkOption,
} from '#core/examine'
import { type Facts, FINDINGS } from '#core/piece'
import { HAZARDS, mayOverrule, type Severity } from '#core/safety'
import { isWithin, LENGTH_MM, round } from '#core/units'
import type * as s from '#shared/schemas'
import { db, type Db } from '../database/db'
import { firstPlace, insertFinding, ownerOf } from './findings'
import type { Person } from './people'
import { faceArea, lengthOf, onPiece, type PieceFile, readPiece, roomOf } from './pieces'
import { choiceOf } from './planRows'
import { readAir, readShop } from './shop'

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
        `Test ${input.test}: ${input.result}. Finish ` +
        `${input.group}${input.layer > 1 ? `, layer ${input.layer}` : ''}: likely ${layer.finish}, ` +
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
const waitingFace = (file: PieceFile, part: string | null) => {
  const faces = file.faces.filter(f => f.scope === 'refinish' && (part === null || f.part === part))
  return faces.find(f => f.face_rank === 'show') ?? faces[0]
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
    const face = waitingFace(file, part)
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
            place: firstPlace(option.finding),
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

/** Overrules a verdict of the examination in its class, or says which finish it is. */
export const overruleExamination = (
  id: number,
  input: z.infer<typeof s.overruleExamination>,
  person: Person,
  at: Date,
) =>
  onPiece(id, at, person, async (tx, file) => {
    const isFinish = input.slug === 'finish-is'
    const verdict = examine({ ...file.recorded, air: null }, file.concluded).verdicts.find(
      v => v.slug === input.slug && v.subject === input.subject,
    )
    if (
      isFinish
        ? !input.value ||
          !/^[A-Z]:[1-5]$/.test(input.subject) ||
          !file.faces.some(f => f.finish_group === input.subject[0])
        : !verdict
    )
      throw notFound('verdict')
    const severity: Severity = verdict?.severity ?? 'warn'
    if (!mayOverrule(severity, person.role))
      throw fail(
        403,
        'forbidden',
        severity === 'forbidden'
          ? 'This is forbidden until evidence lifts it. Record the evidence under Hazards.'
          : 'Only the owner may overrule a stop.',
      )
    await tx.run(
      `INSERT INTO overrule (piece_id, rule, step_key, word, person_id, at, about, value)
          VALUES (:id, :slug, :subject, :word, :personId, :at, 'examination', :value)
          ON DUPLICATE KEY UPDATE word =
          VALUES(word), value =
          VALUES(value), person_id =
          VALUES(person_id), at =
          VALUES(at)`,
      { ...input, id, personId: person.id, at },
    )
    return {
      kind: 'overruled',
      says: isFinish
        ? `Finish ${input.subject.replace(':', ', layer ')} is ${input.value}, by the restorer's word: ${input.word}`
        : `Overruled "${verdict!.says}": ${input.word}`,
      result: { ok: true },
    }
  })

const DEFAULT_CHOICE: Choice = {
  route: 'strip-chemical',
  finish: 'waterborne-polyurethane',
  colour: 'none',
  conditioner: 'auto',
}

/** What the bans change in the plan: the plan without them against the plan with them. */
async function banEffect(facts: Facts, choice: Choice | null) {
  if (facts.bans.every(b => b !== 'dry-sanding') && facts.lead === 'no') return null
  const picked = choice ?? DEFAULT_CHOICE
  return { assumed: choice === null, ...(await inWorker('banEffect', { facts, choice: picked })) }
}

export interface PhotographRow {
  id: number
  address: string
  row_version: number
  taken_at: Date | null
  added_at: Date
  width: number
  height: number
  caption: string
  before_address: string | null
}
export const readPhotographs = (id: number) =>
  db().rows<PhotographRow>(
    `SELECT p.id, p.address, p.row_version, p.taken_at, p.added_at, p.width, p.height, p.caption,
        b.address AS before_address
        FROM photograph p
        LEFT JOIN photograph b ON b.id = p.before_id
        WHERE p.piece_id = :id
        ORDER BY COALESCE(p.taken_at, p.added_at), p.id`,
    { id },
  )
export const readFindingPhotographs = (id: number) =>
  db().rows<{ finding_id: number; address: string }>(
    `SELECT fp.finding_id, p.address
        FROM finding_photograph fp
        JOIN photograph p ON p.id = fp.photograph_id
        WHERE p.piece_id = :id
        ORDER BY p.id`,
    { id },
  )

/** Everything on the Examine pages of one piece. */
export async function examinationPage(id: number, person: Person, at: Date) {
  const [file, { air }, photographs, links] = await Promise.all([
    readPiece(db(), id),
    readAir(at),
    readPhotographs(id),
    readFindingPhotographs(id),
  ])
  const { facts, ...found } = examine({ ...file.recorded, air }, file.concluded)
  const scaled = file.patches.map(p => ({
    ...scalePatch({ ...p, faceId: p.face_id }, facts),
    note: p.note,
    at: p.at,
    by: p.by_name,
  }))
  const overruledBy = new Map(
    file.overrules.map(o => [`${o.rule}|${o.subject}`, { word: o.word, by: o.by_name, value: o.value }]),
  )
  const [last, ...earlier] = [...scaled].reverse()
  const other = last ? earlier.find(p => p.method !== last.method) : undefined
  return {
    rowVersion: file.piece.row_version,
    closed: file.piece.state === 'handed-over',
    air,
    room: roomOf(file.piece),
    faces: file.faces.map(f => ({
      ...facts.faces.find(x => x.id === f.id)!,
      partId: f.part_id,
      length_typed: f.length_typed,
      width_typed: f.width_typed,
      veneer_typed: f.veneer_typed,
      rowVersion: f.row_version,
    })),
    findings: file.findings.map((f, i) => ({
      id: f.id,
      number: i + 1,
      faceId: f.face_id,
      kind: f.kind,
      grade: f.grade,
      wish: f.wish,
      note: f.note,
      place: file.recorded.facts.findings[i]!.place,
      round: FINDINGS[f.kind].round,
      rowVersion: f.row_version,
      photographs: links.filter(l => l.finding_id === f.id).map(l => l.address),
    })),
    walk: found.walk,
    finishes: found.finishes.map(g => ({
      group: g.group,
      faces: facts.faces.filter(f => f.finishGroup === g.group).map(f => f.id),
      layers: g.layers.map(l => ({
        layer: l.layer,
        finish: l.finish,
        certainty: l.certainty,
        verdict: l.verdict,
        against: l.against,
        reasons: l.reasons,
        ranked: l.ranked.slice(0, 4).map(b => ({ finish: b.finish, p: round(Math.min(0.95, b.p), 3) })),
        overruled: overruledBy.get(`finish-is|${g.group}:${l.layer}`) ?? null,
        next: l.next.map(n => ({
          test: n.test.slug,
          how: n.test.how,
          harm: n.test.harm,
          solvent: n.test.solvent,
          minutes: n.test.minutes,
          gain_bits: round(n.gain_bits, 2),
          results: Object.keys(n.test.results),
        })),
      })),
    })),
    tests: file.tests,
    hazards: found.hazards.map(h => ({ ...h, evidence: file.evidence.filter(e => e.kind === h.slug) })),
    bans: found.bans,
    banEffect: await banEffect(facts, choiceOf(file)),
    moisture: found.moisture.map(m => ({
      ...m,
      readings: file.moisture
        .filter(r => r.face_id === m.faceId)
        .map(r => ({ reading_pct: r.reading_pct, at: r.at, by: r.by_name })),
    })),
    cracks: found.cracks.map(({ finding, ...k }) => ({ ...k, faceId: finding.faceId })),
    veneers: found.veneers,
    damage: found.damage,
    verdicts: found.verdicts.map(v => ({
      ...v,
      overruled: overruledBy.get(`${v.slug}|${v.subject}`) ?? null,
      mayOverrule: mayOverrule(v.severity, person.role),
    })),
    notExamined: found.notExamined,
    patches: scaled,
    patchAdvice: last && other ? comparePatches(other, last, facts) : null,
    items: file.items,
    photographs,
  }
}
