/** What questions to the record are made of, in SQL: first what the filters leave, then what belongs to it. */
import { KIND_WORDS } from '#core/estimate'

const named = (words: readonly string[]) => `(^|[^a-z])(${words.join('|')})([^a-z]|$)`
/** Of a row that has a name. */
export const kindOf = (row: string) =>
  `CASE ${KIND_WORDS.map(([kind, words]) => `WHEN ${row}.name REGEXP '${named(words)}' THEN '${kind}'`).join(
    ' ',
  )} ELSE 'other' END`

/** Of a spell `w`. Minutes beyond ten hours in one go are a clock left running. */
export const SPELL_MIN = 'LEAST(TIMESTAMPDIFF(SECOND, w.from_at, w.to_at) / 60, 600)'
export const SPELL_COUNTS = 'w.to_at IS NOT NULL AND (:person IS NULL OR w.person_id = :person)'
const WITHIN = 'BETWEEN :from AND :to'

/**
 * Cans and pots that went onto pieces, of a pot its part of every can in it: rows of piece, step, lot, amount, price,
 * word, at.
 * @param steps table of the steps that are asked about
 * @param where what is asked of a row, by when it was
 * @param taken the same of what was taken from the shelf for a piece, without a step
 */
const material = (steps: string, where: (at: string) => string, taken = where('m.at')) =>
  `SELECT st.piece_id, u.step_id, u.lot_id, u.amount, u.price_minor, u.word, u.at
      FROM ${steps} st
      JOIN lot_use u ON u.step_id = st.id
      WHERE ${where('u.at')}
    UNION ALL
    SELECT st.piece_id, pu.step_id, u.lot_id, u.amount * pu.amount_g / poured.g, u.price_minor, pu.word, pu.at
      FROM ${steps} st
      JOIN pot_use pu ON pu.step_id = st.id
      JOIN (SELECT batch_id, SUM(poured_g) AS g FROM batch_line GROUP BY batch_id HAVING SUM(poured_g) > 0) poured
        ON poured.batch_id = pu.batch_id
      JOIN lot_use u ON u.batch_id = pu.batch_id
      WHERE ${where('pu.at')}
    UNION ALL
    SELECT m.piece_id, NULL, m.lot_id, -m.amount, product.price_minor, m.word, m.at
      FROM lot_move m
      JOIN lot ON lot.id = m.lot_id
      JOIN product ON product.id = lot.product_id
      WHERE m.kind = 'taken' AND m.piece_id IS NOT NULL AND ${taken}`
/** Litres, kilograms, pieces and metres at their price. */
const priced = (rows: string) =>
  `SELECT material.*, product.class, product.name AS product,
        material.amount / IF(product.unit IN ('ml', 'g'), 1000, 1) * material.price_minor AS cost_minor
      FROM (${rows}) material
      JOIN lot ON lot.id = material.lot_id
      JOIN product ON product.id = lot.product_id`

/**
 * ml that steps took of lots and pots, of a pot by what it weighs.
 * @param steps table of the steps that are asked about
 */
export const tookOf = (steps: string) =>
  `SELECT took.step_id, SUM(took.ml) AS ml, MAX(took.word) AS word
        FROM (
          SELECT u.step_id, u.amount AS ml, u.word
            FROM ${steps} st
            JOIN lot_use u ON u.step_id = st.id
            JOIN lot ON lot.id = u.lot_id
            JOIN product ON product.id = lot.product_id AND product.unit = 'ml'
          UNION ALL
          SELECT pu.step_id, pu.amount_g / pot.density, pu.word
            FROM ${steps} st
            JOIN pot_use pu ON pu.step_id = st.id
            JOIN (
              SELECT batch_id, SUM(poured_g) / SUM(poured_g / density) AS density
                FROM batch_line
                GROUP BY batch_id
                HAVING SUM(poured_g) > 0
            ) pot ON pot.batch_id = pu.batch_id
        ) took
        GROUP BY took.step_id
        HAVING SUM(took.ml) > 0`
/** Spilt and thrown away less what came back, at the price it was bought for. */
export const LOST = `SELECT product.class, product.name AS product, lot.code, m.word, m.at,
        IF(m.kind = 'back', -1, 1) * ABS(m.amount) / IF(product.unit IN ('ml', 'g'), 1000, 1) * product.price_minor
          AS cost_minor
        FROM lot_move m
        JOIN lot ON lot.id = m.lot_id
        JOIN product ON product.id = lot.product_id
        WHERE m.kind IN ('spilt', 'thrown', 'back') AND m.at ${WITHIN}
          AND (:person IS NULL OR m.person_id = :person)`

const OF_ENDED = `m.piece_id IN (SELECT id FROM chosen WHERE ended_at ${WITHIN})`

/** What the filters leave: pieces; steps that were finished in the time; hands, materials; pieces that were ended. */
export const CHOSEN = `WITH
  chosen AS (
    SELECT piece.id, piece.name, piece.state, piece.due_on, piece.handed_over_at, piece.ready_at, piece.agreed_minor,
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
  done AS (
    SELECT st.id, st.piece_id, st.kind, st.method, st.product, st.planned_product, st.attended_min, st.amount_ml,
        st.gate_result, st.finished_at, st.finished_by, chosen.name AS piece
      FROM plan_step st
      JOIN chosen ON chosen.id = st.piece_id
      WHERE st.state = 'done' AND st.finished_at ${WITHIN}
  ),
  spent AS (
    SELECT w.step_id, w.person_id, SUM(${SPELL_MIN}) AS min
      FROM done
      JOIN work_spell w ON w.step_id = done.id
      WHERE ${SPELL_COUNTS}
      GROUP BY w.step_id, w.person_id
  ),
  costs AS (${priced(material('plan_step', at => `${at} ${WITHIN}`))}),
  ended AS (
    SELECT chosen.id, chosen.name, chosen.ended_at, chosen.agreed_minor, chosen.ready_at, chosen.handed_over_at,
        ${kindOf('chosen')} AS kind,
        (
          SELECT SUM(${SPELL_MIN})
            FROM plan_step st
            JOIN work_spell w ON w.step_id = st.id
            WHERE st.piece_id = chosen.id AND ${SPELL_COUNTS}
        ) AS min
      FROM chosen
      WHERE chosen.ended_at ${WITHIN}
  ),
  ended_step AS (
    SELECT st.id, st.piece_id
      FROM chosen
      STRAIGHT_JOIN plan_step st ON st.piece_id = chosen.id
      WHERE chosen.ended_at ${WITHIN}
  ),
  ended_cost AS (
    SELECT costs.piece_id, SUM(costs.cost_minor) AS material_minor
      FROM (${priced(material('ended_step', () => 'TRUE', OF_ENDED))}) costs
      GROUP BY costs.piece_id
  )`
