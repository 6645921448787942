/**
 * What a schedule is made of. Instants are epoch milliseconds (`_ms`), lengths of time are minutes (`_min`). Work
 * begins on a grid of a quarter of an hour, and takes whole quarters.
 */

export const GRID_MIN = 15
export type Span = readonly [from_ms: number, to_ms: number]

/** What not everybody may be trusted with; all else anybody does. */
export const SKILLS = ['strip', 'repair', 'colour', 'spray', 'polish'] as const
export type Skill = (typeof SKILLS)[number]

export interface Hand {
  id: number
  /** null: all of them */
  skills: ReadonlySet<Skill> | null
  /** when they are there, in order and apart */
  spans: readonly Span[]
}

/** Where wet faces lie or stand: racks by area and length, trestles by the piece. */
export interface Support {
  id: number
  /** null: as much as stands on it, one piece at a time */
  area_m2: number | null
  length_mm: number | null
}
export interface Room {
  id: number
  allows: { dust: boolean; wet: boolean; other: boolean }
  /** cleaning and settling between dust and a coat */
  changeOver_min: number
  /** one product at a time */
  oneAtATime: boolean
  /** none: as much as comes */
  supports: readonly Support[]
  /** when no coat of a kind of air need may begin, by `Task.air` */
  closedTo: Readonly<Record<string, readonly Span[]>>
  /** when nothing may be done here: a yard in the rain */
  shut: readonly Span[]
}

/** dust: it makes dust · wet: it leaves something wet · other: neither */
export type Makes = 'dust' | 'wet' | 'other'
export interface Link {
  /** the earlier task */
  from: string
  /** from its end, safe */
  min_min: number
  /** from its start, early; null: none */
  max_min: number | null
}
export interface Task {
  id: string
  minutes: number
  /** how many pairs of hands; none: somebody's word is waited for */
  hands: 0 | 1
  skill: Skill | null
  makes: Makes
  /** of what is wet; two kinds do not share a booth */
  product: string | null
  /** its need of air, a key of `Room.closedTo` */
  air: string | null
  /** so long after its end it is wet: no dust, and it holds its support */
  wet_min: number
  area_m2: number
  length_mm: number
  /** it is not laid aside over a closing: something sets meanwhile */
  whole: boolean
  after: readonly Link[]
  /** not before, and not after: what was done already dries until then, and its window closes */
  opens_ms: number | null
  closes_ms: number | null
  /** hangs on somebody's word: shown, and holds no capacity */
  ifYes: boolean
  /** in hand: since when, by whom, where; its `minutes` are those that are left, and go on at once */
  begun: { start_ms: number; handId: number | null; roomId: number | null } | null
  /** put there by hand */
  pin: { start_ms: number; handId: number | null; roomId: number | null } | null
  /** where the last schedule had it */
  last: Pick<Placed, 'start_ms' | 'handId' | 'roomId' | 'supportId'> | null
}
export interface Job {
  id: number
  /** when it must be ready; null: nobody waits for it */
  due_ms: number | null
  weight: number
  /** each after all that it follows */
  tasks: readonly Task[]
}
export interface Shop {
  now_ms: number
  /** nothing is placed beyond it */
  until_ms: number
  hands: readonly Hand[]
  rooms: readonly Room[]
  jobs: readonly Job[]
}

export interface Placed {
  task: string
  jobId: number
  handId: number | null
  roomId: number | null
  supportId: number | null
  /** hands at work; more than one where a closing lies between */
  parts: readonly Span[]
  start_ms: number
  end_ms: number
}
/** never: nobody, or no room, may do it · late: not before the schedule's end · window: no window is long enough */
export type WhyUnplaced = 'never' | 'late' | 'window' | 'behind'
export interface Schedule {
  placed: readonly Placed[]
  unplaced: readonly { task: string; jobId: number; why: WhyUnplaced }[]
  /** waits and windows that what is begun or pinned does not keep: too early, or too late, by so many minutes */
  missed: readonly Missed[]
  /** pinned where it cannot be: it stands elsewhere */
  slipped: readonly string[]
  cost: Cost
}
export interface Missed {
  /** null: something that is done */
  from: string | null
  to: string
  what: 'early' | 'late'
  by_min: number
}
export interface Cost {
  /** Σ weight × hours late + 0.01 × hours until ready, and a great deal for a window that is missed */
  hours: number
  changeOvers: number
  /** tasks at another time or in other hands than in the last schedule */
  moved: number
}
