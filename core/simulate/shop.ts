/** The made-up shop as its people see it at a moment. */
import type { DryLooks } from '../drying'
import type { Operation } from './recipes'
import type { Arrival } from './world'

/** What stands between a piece and its next operation. */
export interface Before {
  /** when the last operation began and ended */
  start_ms: number
  end_ms: number
  operation: Operation
  /** when it was last seen not dry; null: nobody looked */
  notDry_ms: number | null
}
export interface OpenJob {
  arrival: Arrival
  operations: Operation[]
  /** the next, or the one in hand */
  n: number
  before: Before | null
  inHand: { handId: number; start_ms: number; left_min: number } | null
}
export interface Seen {
  now_ms: number
  jobs: readonly OpenJob[]
  /** who is there, and has nothing in hand */
  free: readonly number[]
  /** those away today: until when */
  away: ReadonlyMap<number, number>
  rh: number
  /** every drying that was looked at so far */
  looks: readonly DryLooks[]
}
/** Who begins which piece's next operation. A policy sees what people see, and nothing that is hidden. */
export interface Policy {
  name: string
  begins(seen: Seen): { handId: number; jobId: number }[]
}
