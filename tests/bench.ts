/** Ratios measured in one run; no absolute pass mark. Needs HANTVERK_BASE and HANTVERK_SQL of a server in test mode. */
import { usualContext } from '#core/context'
import mysql from 'mysql2/promise'
import { LIMITS, simulate } from '../core/identify/simulate'
import { workOutPlan } from '../core/plan'
import { Caller, choice, intake, PASSWORD, replied, setClock } from './api/http'
import { colourBench } from './benchColour'
import { loadBench } from './benchLoad'
import { actsBench, findBench, firstLoadBench } from './benchPage'
import { planBench, replanOf } from './benchPlan'
import { storeBench } from './benchStore'
import { facts, built } from './facts'

const ACTIVE = 60
const ROUNDS = 15
const NOON = '2026-11-24T10:30:00+01:00'

async function median_ms(work: () => Promise<unknown> | unknown): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < ROUNDS; i++) {
    const begun = performance.now()
    await work()
    times.push(performance.now() - begun)
  }
  return times.sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!
}
/** The judgement of finishes on made-up pieces, and what it calls so sure. */
function judgement() {
  const began = performance.now()
  const r = simulate()
  const percent = (p: number) => `${(p * 100).toFixed(1)} %`
  console.log(
    `\nWhich finish? N = ${r.pieces} made-up pieces, jitter ${r.jitter} (σ of ln), ${percent(r.wrong)} wrong ` +
      `readings, ${percent(r.twoLayered)} with two layers, seed ${r.seed} ` +
      `(${((performance.now() - began) / 1000).toFixed(1)} s)`,
  )
  console.log('First guess right after         1 test   2 tests  3 tests  4 tests   harm    minutes')
  for (const a of r.accuracy)
    console.log(
      `  ${a.policy.padEnd(28)} ${a.right.map(x => percent(x).padEnd(8)).join(' ')} ` +
        `${a.harm.at(-1)!.toFixed(1).padStart(5)} ${a.minutes.at(-1)!.toFixed(1).padStart(9)}`,
    )
  console.log('Called sure, and right (advice, after 1 to 4 tests)')
  for (const b of r.calibration)
    console.log(
      `  ${percent(b.said).padEnd(8)} ${percent(b.right).padEnd(8)} ` +
        `${'█'.repeat(Math.round(b.right * 40)).padEnd(40)} N ${b.n}`,
    )
  for (const limit of LIMITS) console.log(`  ${limit}`)
  console.log('')
}

const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`)

async function main() {
  const sql = await mysql.createConnection({ uri: process.env.HANTVERK_SQL!, multipleStatements: true })
  const owner = new Caller()
  await owner.ok('POST /api/first-owner', {
    shop: 'Bench',
    name: 'Owner',
    login: 'owner',
    password: PASSWORD,
    zone: 'Europe/Stockholm',
    currency: 'SEK',
    lengthUnit: 'mm',
  })
  await setClock(owner, NOON)
  const pieces: number[] = []
  for (let i = 0; i < ACTIVE; i++) {
    const { id } = await owner.ok<{ id: number }>('POST /api/pieces', intake())
    pieces.push(id)
    await owner.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    const { id: approval } = await owner.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, { words: '', days: 14 })
    await owner.ok(`POST /api/approvals/${approval}/answer`, { ...replied(), via: 'phone', name: 'C', says: '' })
  }
  /** Archived pieces are copies made in the database, some ten a week: volume only, never judged. */
  const archive = (n: number) =>
    sql.query(`INSERT INTO piece (
        client_id, name, use_kind, tone, sheen, age_wish, period, refinished, keep_patina, lead_answer, state,
        taken_in_at, handed_over_at
      ) SELECT client_id,
        name, use_kind, tone, sheen, age_wish, period, refinished, keep_patina, lead_answer, 'handed-over',
        taken_in_at - INTERVAL seq * 17 HOUR, taken_in_at - INTERVAL seq * 17 HOUR
        FROM piece, seq_1_to_${n}
        WHERE piece.id = 1; INSERT INTO plan_step (
          piece_id, step_key, position, kind, title, product, grits, method, coat, passes, attended_min, amount_ml,
          fields, typed, why, state, started_at, finished_at
        )
        SELECT p.id, s.step_key, s.position, s.kind, s.title, s.product, s.grits, s.method, s.coat, s.passes,
          s.attended_min, s.amount_ml, s.fields, s.typed, s.why, 'done', p.taken_in_at, p.taken_in_at
        FROM piece p
        JOIN plan_step s ON s.piece_id = 1
        WHERE p.state = 'handed-over'
          AND NOT EXISTS (
            SELECT 1
              FROM plan_step x
              WHERE x.piece_id = p.id
          ); ANALYZE TABLE piece, plan_step`)
  if (process.argv[2] === 'store') {
    await storeBench(owner, sql, archive, say)
    await sql.end()
    return
  }
  const bare = () =>
    sql.query(
      `SELECT s.*
          FROM plan_step s
          JOIN piece ON piece.id = s.piece_id
          WHERE piece.state = 'active'
          ORDER BY s.piece_id, s.position`,
    )
  const now = () => owner.ok('GET /api/now')
  await archive(100)
  await now()
  const few = await median_ms(now)
  const fewBare = await median_ms(bare)
  await archive(9900)
  await now()
  const many = await median_ms(now)
  const manyBare = await median_ms(bare)
  say(
    `Now, ${ACTIVE} active pieces: 10,000 archived against 100`,
    `${(many / few).toFixed(2)} ×   (${many.toFixed(0)} / ${few.toFixed(0)} ms)`,
  )
  say(
    'The steps alone, bare through mysql2: 10,000 against 100',
    `${(manyBare / fewBare).toFixed(2)} ×   (${manyBare.toFixed(1)} / ${fewBare.toFixed(1)} ms)`,
  )
  say('Now against the bare query, 10,000 archived', `${(many / manyBare).toFixed(1)} ×`)
  await findBench(owner, say)
  await actsBench(owner, pieces, say)
  await firstLoadBench(owner, say)
  if (process.argv[2] === 'now') {
    await sql.end()
    return
  }
  const one = await median_ms(() =>
    workOutPlan(
      usualContext(facts()),
      built(usualContext(facts()), {
        route: 'strip-chemical',
        finish: 'waterborne-polyurethane',
        colour: 'pigment-stain',
        conditioner: 'auto',
      }),
    ),
  )
  say('Working out a plan against reading Now', `${(one / many).toFixed(4)} ×   (${one.toFixed(2)} ms)`)
  planBench([{ name: 'This core', replanOf }], say)
  await loadBench(owner, 1)
  colourBench()
  judgement()
  await sql.end()
}

main().catch(error => {
  console.error(error)
  process.exit(1)
})
