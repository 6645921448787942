/**
 * Every list of the shop as a question to the database; headings are the names of its columns, with their units.
 * Moments are written in the shop's zone; money in its currency.
 */
export interface List {
  sql: string
  /** of money: only for whom the shop shows prices */
  prices?: true
  /** `:all`: the owner; `:personId`: everybody else has only their own */
  own?: true
  /** the column that holds a step's number, to be said by its title */
  step?: string
}
const STEP = `JOIN plan_step st ON st.id = u.step_id
    JOIN piece ON piece.id = st.piece_id`
export const LISTS = {
  pieces: {
    sql: `SELECT piece.id AS piece, piece.name, client.name AS client, piece.state, piece.taken_in_at AS \`taken in\`,
          piece.due_on AS \`promised for\`, piece.ready_at AS ready, piece.handed_over_at AS \`handed over\`,
          piece.follows_id AS \`was piece\`, piece.note
        FROM piece
        JOIN client ON client.id = piece.client_id
        ORDER BY piece.id`,
  },
  clients: {
    sql: `SELECT client.id AS client, client.name, client.email AS mail, client.phone,
          (SELECT COUNT(*) FROM piece WHERE piece.client_id = client.id) AS pieces
        FROM client
        WHERE client.merged_into IS NULL AND client.erased_at IS NULL
        ORDER BY client.name, client.id`,
  },
  faces: {
    sql: `SELECT part.piece_id AS piece, part.name AS part, face.name AS face, face.shape, face.species,
          face.substrate, face.length_mm AS \`length in mm\`, face.width_mm AS \`width in mm\`, face.copies,
          face.veneer_mm AS \`veneer in mm\`, face.finish_group AS \`finish group\`
        FROM face
        JOIN part ON part.id = face.part_id
        ORDER BY part.piece_id, face.id`,
  },
  findings: {
    sql: `SELECT part.piece_id AS piece, part.name AS part, face.name AS face, finding.kind, finding.grade,
          finding.wish, finding.size_mm AS \`size in mm\`, finding.note, finding.withdrawn_at AS \`taken back\`
        FROM finding
        JOIN face ON face.id = finding.face_id
        JOIN part ON part.id = face.part_id
        ORDER BY part.piece_id, finding.id`,
  },
  tests: {
    sql: `SELECT t.piece_id AS piece, t.finish_group AS \`finish group\`, t.layer, t.test, t.result, t.spot,
          person.name AS \`by\`, t.at, t.withdrawn_at AS \`taken back\`
        FROM finish_test t
        JOIN person ON person.id = t.person_id
        ORDER BY t.piece_id, t.id`,
  },
  moisture: {
    sql: `SELECT part.piece_id AS piece, part.name AS part, face.name AS face, m.reading_pct AS \`moisture in %\`,
          m.thickness_mm AS \`thickness in mm\`, person.name AS \`by\`, m.at
        FROM moisture_reading m
        JOIN face ON face.id = m.face_id
        JOIN part ON part.id = face.part_id
        JOIN person ON person.id = m.person_id
        ORDER BY m.id`,
  },
  steps: {
    step: 'title',
    sql: `SELECT st.piece_id AS piece, st.position AS \`no\`, st.kind, st.id AS title, st.product, st.method, st.grits,
          st.passes, st.coat, st.attended_min AS \`planned in min\`, st.amount_ml AS \`planned in ml\`, st.state,
          st.gate_result AS gate, st.started_at AS started, st.finished_at AS finished
        FROM plan_step st
        ORDER BY st.piece_id, st.position`,
  },
  spells: {
    own: true,
    step: 'step',
    sql: `SELECT st.piece_id AS piece, st.id AS step, person.name AS person, u.from_at AS \`from\`, u.to_at AS \`to\`,
          TIMESTAMPDIFF(SECOND, u.from_at, u.to_at) / 60 AS \`hands in min\`
        FROM work_spell u
        ${STEP}
        JOIN person ON person.id = u.person_id
        WHERE :all OR u.person_id = :personId
        ORDER BY u.id`,
  },
  log: {
    sql: `SELECT logbook.id AS \`no\`, logbook.happened_at AS happened, logbook.recorded_at AS recorded,
          logbook.piece_id AS piece, logbook.kind, logbook.says, person.name AS \`by\`
        FROM logbook
        LEFT JOIN person ON person.id = logbook.person_id
        ORDER BY logbook.id`,
  },
  uses: {
    step: 'step',
    sql: `SELECT st.piece_id AS piece, st.id AS step, product.name AS product, lot.code AS lot, u.amount,
          product.unit, st.amount_ml AS \`planned in ml\`, u.word, u.at
        FROM lot_use u
        ${STEP}
        JOIN lot ON lot.id = u.lot_id
        JOIN product ON product.id = lot.product_id
        ORDER BY u.id`,
  },
  products: {
    sql: `SELECT product.id AS product, product.name, product.class, product.grit, product.unit, product.supplier,
          product.containers AS sizes, product.least AS \`kept at least\`
        FROM product
        ORDER BY product.name`,
  },
  prices: {
    prices: true,
    sql: `SELECT product.name, product.class, product.price_minor / 100 AS price,
          IF(product.unit IN ('ml', 'g'), CONCAT('1000 ', product.unit), CONCAT('1 ', product.unit)) AS \`for\`
        FROM product
        ORDER BY product.name`,
  },
  lots: {
    sql: `SELECT lot.id AS lot, product.name AS product, lot.code, lot.left_amount AS \`left\`, product.unit,
          lot.received_on AS received, lot.opened_on AS opened, lot.best_before AS \`best before\`,
          place.code AS place, lot.kept_for AS \`kept for piece\`, lot.gone_at AS \`thrown away\`
        FROM lot
        JOIN product ON product.id = lot.product_id
        LEFT JOIN place ON place.id = lot.place_id
        ORDER BY lot.id`,
  },
  moves: {
    sql: `SELECT m.lot_id AS lot, product.name AS product, lot.code, m.kind, m.amount, product.unit, m.word,
          m.piece_id AS piece, person.name AS \`by\`, m.at
        FROM lot_move m
        JOIN lot ON lot.id = m.lot_id
        JOIN product ON product.id = lot.product_id
        JOIN person ON person.id = m.person_id
        ORDER BY m.id`,
  },
  // a line for each colourant: so they are read back
  recipes: {
    sql: `SELECT recipe.id AS recipe, recipe.name, recipe.piece_id AS piece, recipe.class, wood.name AS wood,
          sapwood.name AS sapwood, target.name AS target, product.name AS colourant, s.pct AS \`share in %\`,
          recipe.coats, recipe.wipe, recipe.clear_coat AS \`clear coat\`,
          REPLACE(recipe.lights, ',', ' ') AS lights, recipe.observer, IF(recipe.bleached, 'yes', '') AS bleached,
          recipe.score AS \`ΔE00 mean\`, recipe.worst AS \`ΔE00 worst\`, recipe.note, recipe.at
        FROM recipe
        JOIN recipe_share s ON s.recipe_id = recipe.id
        JOIN product ON product.id = s.product_id
        JOIN reading wood ON wood.id = recipe.wood_id
        LEFT JOIN reading sapwood ON sapwood.id = recipe.sapwood_id
        JOIN reading target ON target.id = recipe.target_id
        ORDER BY recipe.id, s.pct DESC`,
  },
  // a line for each thing that was poured
  pots: {
    sql: `SELECT batch.id AS pot, batch.name, batch.piece_id AS piece, recipe.name AS recipe, l.name AS content,
          SUM(l.poured_g) AS \`poured in g\`, l.density AS \`density in g/ml\`, batch.mixed_at AS mixed,
          batch.pot_min AS \`lasts in min\`, batch.left_g AS \`left in g\`, batch.place, batch.closed_at AS emptied,
          batch.note
        FROM batch
        JOIN batch_line l ON l.batch_id = batch.id AND l.poured_g > 0
        LEFT JOIN recipe ON recipe.id = batch.recipe_id
        GROUP BY batch.id, batch.name, batch.piece_id, recipe.name, l.name, l.density, batch.mixed_at, batch.pot_min,
          batch.left_g, batch.place, batch.closed_at, batch.note
        ORDER BY batch.id, SUM(l.poured_g) DESC`,
  },
  climate: {
    sql: `SELECT at, temperature_C AS \`temperature in °C\`, rh * 100 AS \`humidity in %\`, source, logger
        FROM climate_reading
        ORDER BY at`,
  },
  faults: {
    step: 'step',
    sql: `SELECT fault.piece_id AS piece, st.id AS step, fault.sign, fault.product, fault.cause, fault.mend,
          fault.note, person.name AS \`by\`, fault.at, fault.found_at AS \`cause found\`
        FROM fault
        JOIN person ON person.id = fault.person_id
        LEFT JOIN plan_step st ON st.id = fault.step_id
        ORDER BY fault.id`,
  },
  answers: {
    prices: true,
    sql: `SELECT a.piece_id AS piece, client.name AS client, a.state, a.asked_at AS asked, a.expires_at AS \`until\`,
          a.answered_at AS answered, a.answered_via AS \`by way of\`, a.likely_minor / 100 AS \`likely price\`,
          a.worst_minor / 100 AS \`worst price\`
        FROM approval a
        JOIN piece ON piece.id = a.piece_id
        JOIN client ON client.id = piece.client_id
        ORDER BY a.id`,
  },
  quotations: {
    prices: true,
    sql: `SELECT q.piece_id AS piece, q.version, q.made_at AS made, q.valid_until AS \`holds until\`,
          q.total_minor / 100 AS price, q.worst_minor / 100 AS \`at worst\`
        FROM quotation q
        ORDER BY q.id`,
  },
  materials: {
    prices: true,
    step: 'step',
    sql: `SELECT st.piece_id AS piece, st.id AS step, product.name AS product, u.amount, product.unit,
          ROUND(u.amount / IF(product.unit IN ('ml', 'g'), 1000, 1) * u.price_minor / 100, 2) AS cost, u.at
        FROM lot_use u
        ${STEP}
        JOIN lot ON lot.id = u.lot_id
        JOIN product ON product.id = lot.product_id
        ORDER BY u.id`,
  },
} as const satisfies Record<string, List>
export type ListName = keyof typeof LISTS
