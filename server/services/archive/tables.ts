/** What of the database goes into an archive, and what never leaves it. */

/** Rows of a piece, each with the column by which it belongs to another row; parents stand before their children. */
export const OF_PIECE: readonly (readonly [table: string, column: string, parent: string])[] = [
  ['part', 'piece_id', 'piece'],
  ['face', 'part_id', 'part'],
  ['photograph', 'piece_id', 'piece'],
  ['finding', 'face_id', 'face'],
  ['finding_photograph', 'finding_id', 'finding'],
  ['finish_test', 'piece_id', 'piece'],
  ['evidence', 'piece_id', 'piece'],
  ['walk_answer', 'piece_id', 'piece'],
  ['moisture_reading', 'face_id', 'face'],
  ['patch', 'face_id', 'face'],
  ['item', 'piece_id', 'piece'],
  ['examination', 'piece_id', 'piece'],
  ['build_up', 'piece_id', 'piece'],
  ['build_up_face', 'build_up_id', 'build_up'],
  ['layer', 'build_up_id', 'build_up'],
  ['layer_face', 'layer_id', 'layer'],
  ['plan_step', 'piece_id', 'piece'],
  ['plan_step_face', 'step_id', 'plan_step'],
  ['wait_said', 'piece_id', 'piece'],
  ['step_section', 'step_id', 'plan_step'],
  ['overrule', 'piece_id', 'piece'],
  ['work_spell', 'step_id', 'plan_step'],
  ['dry_look', 'piece_id', 'piece'],
  ['rag', 'step_id', 'plan_step'],
  ['plan_snapshot', 'piece_id', 'piece'],
  ['approval', 'piece_id', 'piece'],
  ['question_item', 'approval_id', 'approval'],
  ['approval_word', 'approval_id', 'approval'],
  ['extra', 'piece_id', 'piece'],
  ['quotation', 'piece_id', 'piece'],
  ['reading', 'piece_id', 'piece'],
  ['recipe', 'piece_id', 'piece'],
  ['recipe_share', 'recipe_id', 'recipe'],
  ['batch', 'piece_id', 'piece'],
  ['batch_line', 'batch_id', 'batch'],
  ['batch_correction', 'batch_id', 'batch'],
  ['batch_try', 'batch_id', 'batch'],
  ['band', 'piece_id', 'piece'],
  ['lot_use', 'step_id', 'plan_step'],
  ['pot_use', 'step_id', 'plan_step'],
  ['lot_move', 'piece_id', 'piece'],
  ['fault', 'piece_id', 'piece'],
  ['hand_over', 'piece_id', 'piece'],
  ['logbook', 'piece_id', 'piece'],
]
/** Of the shop beside its pieces; of a piece as far as its rows name them. */
export const OF_SHOP = [
  ...['person', 'client', 'piece', 'place', 'product', 'product_label', 'lot', 'colourant', 'colourant_on_wood'],
  ...['known_surface', 'room', 'person_skill', 'licence', 'house_method', 'own_grade', 'minded', 'climate_reading'],
  ...['own_limit', 'cartridge', 'waste_receipt', 'drying_reset', 'letter_words', 'closure', 'day_off', 'fetch_day'],
  ...['person_opening', 'ignition_look', 'product_sheet'],
] as const

/**
 * Columns that never leave: what lets somebody in, and whose machine it was. Work of machines (mail, links, events,
 * schedules, undo of plans) stays with them.
 */
export const NEVER: Readonly<Record<string, readonly string[]>> = {
  person: ['login', 'password_hash', 'pin_hash', 'pin_wrong', 'must_change', 'one_time_until', 'active', 'row_version'],
  approval: ['token_hash'],
  work_spell: ['tablet_id'],
  product: ['row_version'],
  place: ['row_version'],
}
/** What counts as the same row in two shops, by what people call it. */
export const SAME_BY: Readonly<Record<string, readonly string[]>> = {
  product: ['name'],
  place: ['code'],
  lot: ['product_id', 'code'],
  photograph: ['address'],
  room: ['name'],
  colourant: ['product_id'],
  house_method: ['slug'],
  own_limit: ['slug'],
  letter_words: ['kind'],
  closure: ['day'],
  fetch_day: ['weekday'],
}
/** References that the database itself does not know of. */
export const REFERS: Readonly<Record<string, string>> = {
  'approval.recorded_by': 'person',
  'climate_reading.person_id': 'person',
  'dry_look.label_id': 'product_label',
  'logbook.step_id': 'plan_step',
  'logbook.undoes_id': 'logbook',
  'plan_step.label_id': 'product_label',
  'plan_step.product_id': 'product',
}
/** Numbers of rows inside JSON, by the name they have there. */
export const IN_JSON: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  'piece.known_findings': { faceId: 'face' },
}
/** What stands beside the rows, as files; of a photograph named by its address, else by the uid of its row. */
export interface FileOf {
  dir: string
  column: string
  /** made anew from the file */
  derived: string | null
  by: 'address' | 'uid'
  begins: readonly number[]
  /** "its picture is no JPEG" */
  called: string
  kind: string
}
export const FILES: Readonly<Record<string, FileOf>> = {
  photograph: {
    ...{ dir: 'pictures', column: 'picture', derived: 'thumb', by: 'address' },
    ...{ begins: [0xff, 0xd8, 0xff], called: 'picture', kind: 'JPEG' },
  },
  product_sheet: {
    ...{ dir: 'sheets', column: 'data', derived: null, by: 'uid' },
    ...{ begins: [0x25, 0x50, 0x44, 0x46, 0x2d], called: 'data sheet', kind: 'PDF' },
  },
}
