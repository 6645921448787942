/**
 * What the shop's record answers, each question as one list of lines. A line has what it counts under (`of`), its
 * piece, what it was (in words, or a step's number), figures planned and real, a word, and when. Sums, shares and
 * ranges are made of the lines, so that every figure opens to them.
 */
import { KIND_WORDS } from '#core/estimate'
import type { RecordAsk } from '#shared/schemas'

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

const named = (words: readonly string[]) => `(^|[^a-z])(${words.join('|')})([^a-z]|$)`
/** Of a row that has a name. */
const kindOf = (row: string) =>
  `CASE ${KIND_WORDS.map(([kind, words]) => `WHEN ${row}.name REGEXP '${named(words)}' THEN '${kind}'`).join(
    ' ',
  )} ELSE 'other' END`

/** Pieces, spells and materials that the filters leave. Minutes beyond ten hours in one go are a clock left running. */
export const CHOSEN = `WITH
  chosen AS (
    SELECT piece.id, piece.name, piece.state, piece.due_on, piece.handed_over_at, piece.agreed_minor,
        COALESCE(piece.ready_at, piece.handed_over_at) AS ended_at
      FROM piece
      WHERE (:kind IS NULL OR ${kindOf('piece')} = :kind)
        AND (:wood IS NULL OR EXISTS (
          SELECT 1 FROM part JOIN face ON face.part_id = part.id
            WHERE part.piece_id = piece.id AND face.species = :wood
        ))
        AND (:finish IS NULL OR EXISTS (
          SELECT 1 FROM plan_step f
            WHERE f.piece_id = piece.id AND f.product = :finish AND f.state = 'done'
        ))
  ),
  spent AS (
    SELECT w.step_id, w.person_id, SUM(LEAST(TIMESTAMPDIFF(SECOND, w.from_at, w.to_at) / 60, 600)) AS min
      FROM work_spell w
      WHERE w.to_at IS NOT NULL AND (:person IS NULL OR w.person_id = :person)
      GROUP BY w.step_id, w.person_id
  ),
  material AS (
    SELECT st.piece_id, u.step_id, u.lot_id, u.amount, u.price_minor, u.word, u.at
      FROM lot_use u
      JOIN plan_step st ON st.id = u.step_id
    UNION ALL
    -- of a pot its part of every can that went into it
    SELECT st.piece_id, pu.step_id, u.lot_id, u.amount * pu.amount_g / poured.g, u.price_minor, pu.word, pu.at
      FROM pot_use pu
      JOIN plan_step st ON st.id = pu.step_id
      JOIN (SELECT batch_id, SUM(poured_g) AS g FROM batch_line GROUP BY batch_id HAVING SUM(poured_g) > 0) poured
        ON poured.batch_id = pu.batch_id
      JOIN lot_use u ON u.batch_id = pu.batch_id
    UNION ALL
    SELECT m.piece_id, NULL, m.lot_id, -m.amount, product.price_minor, m.word, m.at
      FROM lot_move m
      JOIN lot ON lot.id = m.lot_id
      JOIN product ON product.id = lot.product_id
      WHERE m.kind = 'taken' AND m.piece_id IS NOT NULL
  ),
  costs AS (
    SELECT material.*, product.class, product.name AS product,
        material.amount / IF(product.unit IN ('ml', 'g'), 1000, 1) * material.price_minor AS cost_minor
      FROM material
      JOIN lot ON lot.id = material.lot_id
      JOIN product ON product.id = lot.product_id
  ),
  ended AS (
    SELECT chosen.id, chosen.name, ${kindOf('chosen')} AS kind, chosen.ended_at, chosen.agreed_minor,
        (
          SELECT SUM(spent.min) FROM spent JOIN plan_step st ON st.id = spent.step_id WHERE st.piece_id = chosen.id
        ) AS min,
        COALESCE((SELECT SUM(cost_minor) FROM costs WHERE costs.piece_id = chosen.id), 0) AS material_minor
      FROM chosen
      WHERE chosen.ended_at BETWEEN :from AND :to
  )`

const STEP = `JOIN plan_step st ON st.id = spent.step_id AND st.state = 'done' AND st.kind <> 'approval'
      AND st.finished_at BETWEEN :from AND :to
    JOIN chosen ON chosen.id = st.piece_id`
/** ml that a step took of lots and pots, of a pot by what it weighs. */
export const TOOK = `SELECT took.step_id, SUM(took.ml) AS ml, MAX(took.word) AS word
        FROM (
          SELECT u.step_id, u.amount AS ml, u.word
            FROM lot_use u
            JOIN lot ON lot.id = u.lot_id
            JOIN product ON product.id = lot.product_id AND product.unit = 'ml'
            WHERE u.step_id IS NOT NULL
          UNION ALL
          SELECT pu.step_id, pu.amount_g / pot.density, pu.word
            FROM pot_use pu
            JOIN (
              SELECT batch_id, SUM(poured_g) / SUM(poured_g / density) AS density
                FROM batch_line
                GROUP BY batch_id
                HAVING SUM(poured_g) > 0
            ) pot ON pot.batch_id = pu.batch_id
        ) took
        GROUP BY took.step_id
        HAVING SUM(took.ml) > 0`
const AMOUNTS = `FROM (${TOOK}) used
    JOIN plan_step st ON st.id = used.step_id AND st.state = 'done' AND st.finished_at BETWEEN :from AND :to
      AND (:person IS NULL OR st.finished_by = :person)
    JOIN chosen ON chosen.id = st.piece_id`
const PLANNED_CLASS = 'COALESCE(st.planned_product, st.product)'

export const QUESTIONS = {
  hours: {
    ...{ by: 'act', as: 'sums', unit: 'min' },
    sql: `SELECT st.kind AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what, st.id AS step_id,
        st.attended_min AS planned, SUM(spent.min) AS really, '' AS word, st.finished_at AS at
        FROM spent
        ${STEP}
        GROUP BY st.id, st.kind, st.attended_min, st.finished_at, chosen.id, chosen.name`,
  },
  pieces: {
    ...{ by: 'name', as: 'sums', unit: 'min' },
    sql: `SELECT CONCAT(chosen.id, ' · ', chosen.name) AS \`of\`, chosen.id AS piece_id, chosen.name AS piece,
        '' AS what, st.id AS step_id, st.attended_min AS planned, SUM(spent.min) AS really, '' AS word,
        st.finished_at AS at
        FROM spent
        ${STEP}
        GROUP BY st.id, st.kind, st.attended_min, st.finished_at, chosen.id, chosen.name`,
  },
  people: {
    ...{ by: 'person', as: 'sums', unit: 'min', own: true },
    sql: `SELECT person.name AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what, st.id AS step_id,
        -- of what two did each has the share that they did
        st.attended_min * spent.min / GREATEST(0.01, (
          SELECT SUM(LEAST(TIMESTAMPDIFF(SECOND, w.from_at, w.to_at) / 60, 600))
            FROM work_spell w
            WHERE w.step_id = st.id AND w.to_at IS NOT NULL
        )) AS planned,
        spent.min AS really, '' AS word, st.finished_at AS at
        FROM spent
        ${STEP}
        JOIN person ON person.id = spent.person_id
        WHERE :all OR spent.person_id = :me`,
  },
  amounts: {
    ...{ by: 'class', as: 'sums', unit: 'ml' },
    sql: `SELECT ${PLANNED_CLASS} AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what, st.id AS step_id,
        st.amount_ml AS planned, used.ml AS really, used.word, st.finished_at AS at
        ${AMOUNTS}
        WHERE ${PLANNED_CLASS} IS NOT NULL`,
  },
  spread: {
    ...{ by: 'class', as: 'range', unit: 'percent' },
    sql: `SELECT CONCAT(${PLANNED_CLASS}, ' ', st.method) AS \`of\`, chosen.id AS piece_id, chosen.name AS piece,
        '' AS what, st.id AS step_id, 100 AS planned, 100 * used.ml / st.amount_ml AS really, used.word,
        st.finished_at AS at
        ${AMOUNTS}
        WHERE st.amount_ml > 0 AND ${PLANNED_CLASS} IS NOT NULL`,
  },
  materials: {
    ...{ by: 'class', as: 'sums', unit: 'money', prices: true },
    sql: `SELECT costs.class AS \`of\`, chosen.id AS piece_id, chosen.name AS piece,
        costs.product AS what, st.id AS step_id, NULL AS planned,
        costs.cost_minor AS really, costs.word, costs.at
        FROM costs
        JOIN chosen ON chosen.id = costs.piece_id
        LEFT JOIN plan_step st ON st.id = costs.step_id
        WHERE costs.at BETWEEN :from AND :to AND (:person IS NULL OR st.finished_by = :person)`,
  },
  waste: {
    ...{ by: 'class', as: 'sums', unit: 'money', prices: true },
    sql: `SELECT product.class AS \`of\`, NULL AS piece_id, '' AS piece, CONCAT(product.name, ', ', lot.code) AS what,
        NULL AS step_id, NULL AS planned,
        IF(m.kind = 'back', -1, 1) * ABS(m.amount) / IF(product.unit IN ('ml', 'g'), 1000, 1) * product.price_minor
          AS really,
        m.word, m.at
        FROM lot_move m
        JOIN lot ON lot.id = m.lot_id
        JOIN product ON product.id = lot.product_id
        WHERE m.kind IN ('spilt', 'thrown', 'back') AND m.at BETWEEN :from AND :to
          AND (:person IS NULL OR m.person_id = :person)`,
  },
  cost: {
    ...{ by: 'kind', as: 'range', unit: 'money', prices: true },
    sql: `SELECT ended.kind AS \`of\`, ended.id AS piece_id, ended.name AS piece, '' AS what, NULL AS step_id,
        ended.agreed_minor AS planned,
        (ended.min / 60 * :hour + ended.material_minor * (1 + :markup)) * (1 + :tax) AS really, '' AS word,
        ended.ended_at AS at
        FROM ended
        WHERE ended.min > 0`,
  },
  earned: {
    ...{ by: 'kind', as: 'range', unit: 'money', prices: true },
    sql: `SELECT ended.kind AS \`of\`, ended.id AS piece_id, ended.name AS piece, '' AS what, NULL AS step_id,
        :hour AS planned,
        (ended.agreed_minor / (1 + :tax) - ended.material_minor) / (ended.min / 60) AS really, '' AS word,
        ended.ended_at AS at
        FROM ended
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
          WHEN late.more >= late.days * 240 THEN 'longer'
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
                SELECT COALESCE(SUM(each_step.more), 0)
                  FROM (
                    SELECT st.piece_id, SUM(spent.min) - MAX(st.attended_min) AS more
                      FROM plan_step st
                      JOIN spent ON spent.step_id = st.id
                      GROUP BY st.id, st.piece_id
                  ) each_step
                  WHERE each_step.piece_id = chosen.id
              ) AS more
            FROM chosen
            WHERE chosen.state IN ('active', 'ready', 'handed-over') AND chosen.due_on BETWEEN :from AND :to
              AND chosen.due_on < DATE(COALESCE(chosen.ended_at, :now))
        ) late`,
  },
  gates: {
    ...{ by: 'finding', as: 'share', unit: 'none' },
    sql: `SELECT found.kind AS \`of\`, chosen.id AS piece_id, chosen.name AS piece, '' AS what, st.id AS step_id,
        1 AS planned,
        st.gate_result = 'fail' AS really, '' AS word, st.finished_at AS at
        FROM plan_step st
        JOIN chosen ON chosen.id = st.piece_id
        JOIN (
          SELECT DISTINCT part.piece_id, finding.kind
            FROM finding
            JOIN face ON face.id = finding.face_id
            JOIN part ON part.id = face.part_id
            WHERE finding.withdrawn_at IS NULL
        ) found ON found.piece_id = st.piece_id
        WHERE st.gate_result IS NOT NULL AND st.finished_at BETWEEN :from AND :to
          AND (:person IS NULL OR st.finished_by = :person)`,
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
