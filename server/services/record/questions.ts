/**
 * What the shop's record answers, each question as one list of lines. A line has what it counts under (`of`), its
 * piece, what it was (in words, or a step's number), figures planned and real, a word, and when. Sums, shares and
 * ranges are made of the lines, so that every figure opens to them.
 */
import type { RecordAsk } from '#shared/schemas'
import { LOST, SPELL_COUNTS, SPELL_MIN, tookOf } from './lines'

export interface Question {
  /** what `of` is, and so how it is said */
  by: 'act' | 'person' | 'class' | 'kind' | 'month' | 'cause' | 'finding' | 'name'
  /** sums: planned beside real; share: in how many of them; range: least, mean and most of what is real */
  as: 'sums' | 'share' | 'range'
  unit: 'min' | 'ml' | 'money' | 'percent' | 'none'
  /** of money: only for whom the shop shows prices */
  prices?: true
  /** of people: the owner sees all, everybody else only their own */
  own?: true
  sql: string
}

/** Hands at finished steps. */
const hours = (of: string) =>
  `SELECT ${of} AS \`of\`, done.piece_id, done.piece, '' AS what, done.id AS step_id, done.attended_min AS planned,
        SUM(spent.min) AS really, '' AS word, done.finished_at AS at
        FROM spent
        JOIN done ON done.id = spent.step_id AND done.kind <> 'approval'
        GROUP BY done.id, done.kind, done.attended_min, done.finished_at, done.piece_id, done.piece`
const AMOUNTS = `FROM (${tookOf('done')}) used
    JOIN done ON done.id = used.step_id AND (:person IS NULL OR done.finished_by = :person)`
const PLANNED_CLASS = 'COALESCE(done.planned_product, done.product)'
const DAYS_KEPT = 'COALESCE(GREATEST(0, DATEDIFF(COALESCE(ended.handed_over_at, :now), ended.ready_at) - :freeDays), 0)'

export const QUESTIONS = {
  hours: { ...{ by: 'act', as: 'sums', unit: 'min' }, sql: hours('done.kind') },
  pieces: { ...{ by: 'name', as: 'sums', unit: 'min' }, sql: hours("CONCAT(done.piece_id, ' · ', done.piece)") },
  people: {
    ...{ by: 'person', as: 'sums', unit: 'min', own: true },
    sql: `SELECT person.name AS \`of\`, done.piece_id, done.piece, '' AS what, done.id AS step_id,
        -- of what two did each has the share that they did
        done.attended_min * spent.min / GREATEST(0.01, (
          SELECT SUM(${SPELL_MIN}) FROM work_spell w WHERE w.step_id = done.id AND w.to_at IS NOT NULL
        )) AS planned,
        spent.min AS really, '' AS word, done.finished_at AS at
        FROM spent
        JOIN done ON done.id = spent.step_id AND done.kind <> 'approval'
        JOIN person ON person.id = spent.person_id
        WHERE :all OR spent.person_id = :me`,
  },
  amounts: {
    ...{ by: 'class', as: 'sums', unit: 'ml' },
    sql: `SELECT ${PLANNED_CLASS} AS \`of\`, done.piece_id, done.piece, '' AS what, done.id AS step_id,
        done.amount_ml AS planned, used.ml AS really, used.word, done.finished_at AS at
        ${AMOUNTS}
        WHERE ${PLANNED_CLASS} IS NOT NULL`,
  },
  spread: {
    ...{ by: 'class', as: 'range', unit: 'percent' },
    sql: `SELECT CONCAT(${PLANNED_CLASS}, ' ', done.method) AS \`of\`, done.piece_id, done.piece, '' AS what,
        done.id AS step_id, 100 AS planned, 100 * used.ml / done.amount_ml AS really, used.word, done.finished_at AS at
        ${AMOUNTS}
        WHERE done.amount_ml > 0 AND ${PLANNED_CLASS} IS NOT NULL`,
  },
  materials: {
    ...{ by: 'class', as: 'sums', unit: 'money', prices: true },
    sql: `SELECT costs.class AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, costs.product AS what,
        st.id AS step_id, NULL AS planned, costs.cost_minor AS really, costs.word, costs.at
        FROM costs
        JOIN chosen ON chosen.id = costs.piece_id
        LEFT JOIN plan_step st ON st.id = costs.step_id
        WHERE :person IS NULL OR st.finished_by = :person`,
  },
  waste: {
    ...{ by: 'class', as: 'sums', unit: 'money', prices: true },
    sql: `SELECT lost.class AS \`of\`, NULL AS piece_id, '' AS piece, CONCAT(lost.product, ', ', lost.code) AS what,
        NULL AS step_id, NULL AS planned, lost.cost_minor AS really, lost.word, lost.at
        FROM (${LOST}) lost`,
  },
  cost: {
    ...{ by: 'kind', as: 'range', unit: 'money', prices: true },
    sql: `SELECT ended.kind AS \`of\`, ended.id AS piece_id, ended.name AS piece, '' AS what, NULL AS step_id,
        ended.agreed_minor AS planned,
        (
          ended.min / 60 * :hour + COALESCE(ended_cost.material_minor, 0) * (1 + :markup + wasted.share)
        ) * (1 + :tax) + ${DAYS_KEPT} * :dayMinor AS really,
        '' AS word, ended.ended_at AS at
        FROM ended
        JOIN (
          -- so much was spilt or thrown away for what went onto pieces; a clear-out of the store belongs to none
          SELECT LEAST(1, GREATEST(0, COALESCE(
            (SELECT SUM(cost_minor) FROM (${LOST}) lost) / NULLIF((SELECT SUM(cost_minor) FROM costs), 0),
            0
          ))) AS share
        ) wasted
        LEFT JOIN ended_cost ON ended_cost.piece_id = ended.id
        WHERE ended.min > 0`,
  },
  earned: {
    ...{ by: 'kind', as: 'range', unit: 'money', prices: true },
    sql: `SELECT ended.kind AS \`of\`, ended.id AS piece_id, ended.name AS piece, '' AS what, NULL AS step_id,
        :hour AS planned,
        (ended.agreed_minor / (1 + :tax) - COALESCE(ended_cost.material_minor, 0)) / (ended.min / 60) AS really,
        '' AS word, ended.ended_at AS at
        FROM ended
        LEFT JOIN ended_cost ON ended_cost.piece_id = ended.id
        WHERE ended.min > 0 AND ended.agreed_minor IS NOT NULL`,
  },
  promises: {
    ...{ by: 'month', as: 'share', unit: 'none' },
    sql: `SELECT DATE_FORMAT(chosen.due_on, '%Y-%m') AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what,
        NULL AS step_id, 1 AS planned, chosen.ended_at IS NOT NULL AND DATE(chosen.ended_at) <= chosen.due_on AS really,
        GREATEST(0, DATEDIFF(COALESCE(chosen.ended_at, :now), chosen.due_on)) AS word, chosen.due_on AS at
        FROM chosen
        WHERE chosen.due_on IS NOT NULL AND chosen.state IN ('active', 'ready', 'handed-over')
          AND chosen.due_on BETWEEN :from AND :to AND (chosen.ended_at IS NOT NULL OR chosen.due_on < DATE(:now))`,
  },
  missed: {
    ...{ by: 'cause', as: 'sums', unit: 'none' },
    sql: `SELECT
        CASE
          WHEN late.waited >= late.days THEN 'answer'
          WHEN late.gates > 0 THEN 'gate'
          WHEN late.faults > 0 THEN 'fault'
          WHEN late.took - late.planned >= late.days * 240 THEN 'longer'
          ELSE 'others'
        END AS \`of\`,
        late.id AS piece_id, late.name AS piece, '' AS what, NULL AS step_id, NULL AS planned, 1 AS really,
        late.days AS word,
        late.due_on AS at
        FROM (
          SELECT chosen.id, chosen.name, chosen.due_on,
              DATEDIFF(COALESCE(chosen.ended_at, :now), chosen.due_on) AS days,
              (
                SELECT COALESCE(SUM(DATEDIFF(COALESCE(a.answered_at, LEAST(a.expires_at, :now)), a.asked_at)), 0)
                  FROM approval a
                  WHERE a.piece_id = chosen.id AND a.asked_at < COALESCE(chosen.ended_at, :now)
              ) AS waited,
              (
                SELECT COUNT(*) FROM plan_step st WHERE st.piece_id = chosen.id AND st.gate_result = 'fail'
              ) AS gates,
              (SELECT COUNT(*) FROM fault WHERE fault.piece_id = chosen.id) AS faults,
              (
                SELECT COALESCE(SUM(${SPELL_MIN}), 0)
                  FROM plan_step st
                  JOIN work_spell w ON w.step_id = st.id
                  WHERE st.piece_id = chosen.id AND ${SPELL_COUNTS}
              ) AS took,
              (
                SELECT COALESCE(SUM(st.attended_min), 0)
                  FROM plan_step st
                  WHERE st.piece_id = chosen.id
                    AND EXISTS (SELECT 1 FROM work_spell w WHERE w.step_id = st.id AND ${SPELL_COUNTS})
              ) AS planned
            FROM chosen
            WHERE chosen.state IN ('active', 'ready', 'handed-over') AND chosen.due_on BETWEEN :from AND :to
              AND chosen.due_on < DATE(COALESCE(chosen.ended_at, :now))
        ) late`,
  },
  gates: {
    ...{ by: 'finding', as: 'share', unit: 'none' },
    sql: `SELECT finding.kind AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what, st.id AS step_id,
        1 AS planned, st.gate_result = 'fail' AS really, '' AS word, st.finished_at AS at
        FROM plan_step st
        JOIN chosen ON chosen.id = st.piece_id
        JOIN part ON part.piece_id = chosen.id
        JOIN face ON face.part_id = part.id
        JOIN finding ON finding.face_id = face.id AND finding.withdrawn_at IS NULL
        WHERE st.gate_result IS NOT NULL AND st.finished_at BETWEEN :from AND :to
          AND (:person IS NULL OR st.finished_by = :person)
        -- a finding on several faces counts once
        GROUP BY finding.kind, st.id, st.gate_result, st.finished_at, chosen.id, chosen.name`,
  },
  lasts: {
    ...{ by: 'class', as: 'share', unit: 'none' },
    sql: `SELECT st.product AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what, NULL AS step_id,
        1 AS planned,
        MIN(later.id) IS NOT NULL AS really,
        COALESCE(TIMESTAMPDIFF(MONTH, chosen.handed_over_at, MIN(later.taken_in_at)), '') AS word,
        chosen.handed_over_at AS at
        FROM plan_step st
        JOIN chosen ON chosen.id = st.piece_id AND chosen.handed_over_at BETWEEN :from AND :to
        LEFT JOIN piece later ON later.follows_id = chosen.id AND later.state NOT IN ('enquiry', 'declined')
        WHERE st.state = 'done' AND st.product IS NOT NULL AND st.kind IN ('coat', 'oil-on', 'wax', 'french-polish')
        GROUP BY st.product, chosen.id, chosen.name, chosen.handed_over_at`,
  },
} as const satisfies Record<RecordAsk, Question>
