import type { z } from 'zod'
import type { Choice } from '#core/build'
import type { Light } from '#core/colour'
import type { Concluded, PatchMethod, PatchResult, Recorded } from '#core/examine'
import type { Context } from '#core/context'
import type { TestSlug } from '#core/identify'
import type { Holes, ItemAnswer, ItemState, PlaceKind } from '#core/parts'
import type { PieceState, Face, Facts, Finding, Period, PlaceShape } from '#core/piece'
import type { LicenceKind } from '#core/safety'
import { faceArea_m2, type Shape } from '#core/units'
import type { Room } from '#core/wood'
import type { pieceChange } from '#shared/schemas'
import type { AirHours } from '../shop/airHours'
import type { BuildUpRow, LayerRow } from '../plan/buildUps'

export interface PieceRow {
  id: number
  client_id: number
  name: string
  use_kind: Facts['use']
  tone: Facts['tone']
  sheen: Facts['sheen']
  age_wish: Facts['age']
  due_on: string | null
  period: Period
  refinished: 'yes' | 'no' | 'unknown'
  keep_patina: 0 | 1
  rustic: 0 | 1
  goes_first: 0 | 1
  lead_answer: 'yes' | 'no' | 'unknown'
  note: string
  state: PieceState
  accepted_worst_minor: number | null
  agreed_minor: number | null
  ready_at: Date | null
  /** when its client was told that it is ready */
  told_at: Date | null
  /** when its finish wants renewing; a client is told by his leave alone */
  renew_on: string | null
  renew_leave: 0 | 1
  /** paid before the work is done */
  deposit_minor: number
  room_dry_rh: number | null
  room_humid_rh: number | null
  room_light: Light | null
  colour_sample: Facts['sample']
  house: Record<string, string> | null
  /** what was found when its plan was made; null: no plan yet, or one from before this was kept */
  known_findings: string | object | null
  shop_house: Record<string, string> | string | null
  /** code of the place where it stands; null: nobody says */
  place: string | null
  /** dust and finish share a room */
  one_room: 0 | 1
  /** licences that the shop holds, whoever has them */
  licences: { kind: LicenceKind; valid_until: string }[] | null
  taken_in_at: Date
  handed_over_at: Date | null
  /** the piece that it was when it was here before */
  follows_id: number | null
  /** raised by every change of the piece, of whatever kind */
  changed_no: number
  row_version: number
  client_name: string
  client_email: string
  client_phone: string
}
type Changing = Exclude<keyof z.infer<typeof pieceChange>, 'rowVersion'>
/** What can be changed of a piece: its column, and what the log calls it. */
export const CHANGES = {
  name: ['name', 'name'],
  use: ['use_kind', 'use'],
  tone: ['tone', 'colour wished'],
  sheen: ['sheen', 'sheen'],
  age: ['age_wish', 'age'],
  dueOn: ['due_on', 'promised for'],
  period: ['period', 'made'],
  refinished: ['refinished', 'refinished before'],
  keepPatina: ['keep_patina', 'keep the patina'],
  rustic: ['rustic', 'rustic'],
  goesFirst: ['goes_first', 'goes before others'],
  lead: ['lead_answer', 'may hold lead'],
  note: ['note', 'note'],
  roomDryRh: ['room_dry_rh', 'its room in winter'],
  roomHumidRh: ['room_humid_rh', 'its room in summer'],
  colourSample: ['colour_sample', 'colour sample'],
  roomLight: ['room_light', 'light of its room'],
} as const satisfies Record<Changing, readonly [keyof PieceRow, string]>
export interface FaceRow {
  id: number
  piece_id: number
  part_id: number
  part: string
  scope: Face['scope']
  name: string
  face_rank: Face['rank']
  shape: Shape
  orientation: Face['orientation']
  length_mm: number
  length_typed: string
  width_mm: number
  width_typed: string
  copies: number
  species: string
  substrate: Face['substrate']
  veneer_mm: number | null
  veneer_typed: string | null
  film_um: number | null
  finish_group: string
  row_version: number
}
export interface FindingRow {
  id: number
  piece_id: number
  face_id: number
  kind: Finding['kind']
  grade: number
  wish: Finding['wish']
  note: string
  shape: PlaceShape
  copy_no: number
  x_mm: number
  y_mm: number
  x2_mm: number
  y2_mm: number
  size_mm: number
  row_version: number
}
export interface TestRow {
  id: number
  piece_id: number
  test: TestSlug
  result: string
  spot: string
  finish_group: string
  layer: number
  at: Date
  by_name: string
}
export interface EvidenceRow {
  piece_id: number
  kind: string
  answer: 'yes' | 'no'
  method: string
  at: Date
  by_name: string
}
export interface AnswerRow {
  piece_id: number
  question: string
  options: string
  at: Date
  by_name: string
}
export interface MoistureRow {
  piece_id: number
  face_id: number
  reading_pct: number
  thickness_mm: number
  air_temperature_C: number | null
  air_rh: number | null
  at: Date
  by_name: string
}
export interface ItemRow {
  id: number
  piece_id: number
  mark: string
  name: string
  kind: 'part' | 'hardware' | 'mark'
  count: number
  taken_out: number | null
  put_back: number | null
  state: ItemState
  set_name: string
  place: string | null
  place_kind: PlaceKind | null
  holes: Holes | null
  note: string
  answer: ItemAnswer | null
  row_version: number
}
export interface PatchRow {
  piece_id: number
  face_id: number
  method: PatchMethod
  length_mm: number
  width_mm: number
  minutes: number
  result: PatchResult
  note: string
  at: Date
  by_name: string
}
export interface OverruleRow {
  piece_id: number
  rule: string
  subject: string
  value: string | null
  word: string
  at: Date
  by_name: string
}

export interface PieceFile {
  /** the air of the shop's room, by the hour */
  airHours: AirHours
  piece: PieceRow
  faces: FaceRow[]
  findings: FindingRow[]
  tests: TestRow[]
  evidence: EvidenceRow[]
  answers: AnswerRow[]
  moisture: MoistureRow[]
  items: ItemRow[]
  patches: PatchRow[]
  overrules: OverruleRow[]
  buildUps: BuildUpRow[]
  layers: LayerRow[]
  recorded: Recorded
  concluded: Concluded
  facts: Facts
  /** all that the reckoning knows of it */
  context: Context
  /** what is chosen for it; null before a ground was */
  choice: Choice | null
}

export const faceArea = (f: FaceRow): number =>
  faceArea_m2({ shape: f.shape, length_mm: f.length_mm, width_mm: f.width_mm, count: f.copies })
export const placeOf = (f: FindingRow) => ({
  shape: f.shape,
  copy: f.copy_no,
  x_mm: f.x_mm,
  y_mm: f.y_mm,
  x2_mm: f.x2_mm,
  y2_mm: f.y2_mm,
  size_mm: f.size_mm,
})
export const faceOf = (f: FaceRow): Face => ({
  id: f.id,
  part: f.part,
  name: f.name,
  scope: f.scope,
  rank: f.face_rank,
  shape: f.shape,
  orientation: f.orientation,
  length_mm: f.length_mm,
  width_mm: f.width_mm,
  copies: f.copies,
  area_m2: faceArea(f),
  species: f.species,
  substrate: f.substrate,
  veneer_mm: f.veneer_mm,
  film_um: f.film_um,
  finishGroup: f.finish_group,
})
export const roomOf = (p: PieceRow): Room | null =>
  p.room_dry_rh !== null && p.room_humid_rh !== null
    ? { temperature_C: 21, dryRh: p.room_dry_rh, humidRh: p.room_humid_rh }
    : null

export type Rows = Omit<PieceFile, 'airHours' | 'recorded' | 'concluded' | 'facts' | 'context' | 'choice'>

/** A piece of which something stored cannot be understood. It is told as such and holds up no other. */
export interface Unreadable {
  id: number
  name: string
  why: string
}
export interface Pieces {
  files: PieceFile[]
  unreadable: Unreadable[]
}
