import type { z } from 'zod'
import { type Choice, choiceOfPicks } from '#core/build'
import type { Context } from '#core/context'
import { comparePatches, examine, scalePatch } from '#core/examine'
import { FINDINGS, wentHome } from '#core/piece'
import { mayOverrule, type Severity } from '#core/safety'
import { round, saidSlug } from '#core/units'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import { roomOf } from '../piece/rows'
import { readAir } from '../shop/air'
import { checkProved, overruling, type Person } from '../shop/person'

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
        ? !/^[A-Z]:[1-5]$/.test(input.subject) || !file.faces.some(f => f.finish_group === input.subject[0])
        : !verdict
    )
      throw notFound('verdict')
    if (isFinish && !input.value) {
      const { changed } = await tx.run(
        `DELETE FROM overrule
            WHERE piece_id = :id AND rule = 'finish-is' AND step_key = :subject AND about = 'examination'`,
        { id, subject: input.subject },
      )
      if (changed === 0) throw notFound('verdict')
      const says = `Finish ${input.subject.replace(':', ', layer ')} by the tests again`
      return { kind: 'overruled', says, result: { ok: true } }
    }
    const severity: Severity = verdict?.severity ?? 'warn'
    if (!mayOverrule(severity, overruling(person, 'examine')))
      throw fail(
        403,
        'forbidden',
        severity === 'forbidden'
          ? 'This is forbidden until evidence lifts it. Record the evidence under Hazards.'
          : 'Your role has no right to overrule a stop.',
      )
    if (severity === 'stop') checkProved(person)
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
        ? `Finish ${input.subject.replace(':', ', layer ')} is ${saidSlug(input.value ?? '')}, ` +
          `by the restorer's word: ${input.word}`
        : `Overruled "${verdict!.says}": ${input.word}`,
      result: { ok: true },
    }
  })

const ASSUMED = {
  route: 'strip-chemical',
  finish: 'waterborne-polyurethane',
  colour: 'none',
  conditioner: 'auto',
} as const

/** What the bans change in the plan: the plan without them against the plan with them. */
async function banEffect(context: Context, choice: Choice | null) {
  const { facts } = context
  if (facts.bans.every(b => b !== 'dry-sanding') && facts.lead === 'no') return null
  const picked = choice ?? choiceOfPicks(context, ASSUMED)
  return { assumed: choice === null, ...(await inWorker('banEffect', { context, choice: picked })) }
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
  released: 0 | 1
}
export const readPhotographs = (id: number) =>
  db().rows<PhotographRow>(
    `SELECT p.id, p.address, p.row_version, p.taken_at, p.added_at, p.width, p.height, p.caption, p.released,
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
    closed: wentHome(file.piece.state),
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
    banEffect: await banEffect(file.context, file.choice),
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
      mayOverrule: mayOverrule(v.severity, overruling(person, 'examine')),
    })),
    notExamined: found.notExamined,
    patches: scaled,
    patchAdvice: last && other ? comparePatches(other, last, facts) : null,
    items: file.items,
    photographs,
  }
}
