import type { DateTime } from 'luxon'

export type Timetable = AnswerOf<'GET /api/timetable'>
export type Effects = AnswerOf<'POST /api/timetable/what-if'>
export type Bar = Timetable['bars'][number]
/** Where a step would be held; nobody or no room named: whoever and wherever it fits. */
export interface Hold {
  at: number
  who: number | null
  room: number | null
}
export const LANES = ['people', 'rooms', 'pieces'] as const
export interface Lane {
  id: number | null
  name: string
  /** under its name */
  says: string
  warns: boolean
  /** a line over the drawing: what was promised */
  post_ms: number | null
  /** behind the bars: when a usual coat would be outside its window, or stopped */
  air: Timetable['rooms'][number]['air']
  bars: Bar[]
}

/** The lines of a timetable, one for each person, room or piece. */
export function useLanes(table: Ref<Timetable | null | undefined>, by: Ref<(typeof LANES)[number]>) {
  const { day, percent } = useFormat()
  const { at } = useMoment()
  const laneOf = (id: number | null, name: string, bars: Bar[], more: Partial<Lane> = {}): Lane => ({
    ...{ id, name, bars, says: '', warns: false, post_ms: null, air: [] },
    ...more,
  })
  const pieceLane = (p: Timetable['pieces'][number], bars: Bar[]): Lane => {
    const due = p.dueOn ? day(p.dueOn) : ''
    const ready = p.ready_ms === null ? '' : day(p.ready_ms)
    const leaves =
      p.leavesOn && p.leavesOn !== at(p.ready_ms!).toISODate() ? w('timetable.leaves', { day: day(p.leavesOn) }) : ''
    const says = p.late ? w('timetable.late', { day: ready, due }) : ready && w('timetable.ready', { day: ready })
    const post = p.dueOn ? (at(p.dueOn) as DateTime).endOf('day').toMillis() : null
    const held = p.held ? w('timetable.held') : ''
    const safe =
      p.likely_ms && p.safe_ms ? w('timetable.likely', { likely: day(p.likely_ms), safe: day(p.safe_ms) }) : ''
    const risk = p.risk === null || !p.dueOn || p.risk < RISKY ? '' : w('timetable.risk', { percent: percent(p.risk) })
    return laneOf(p.pieceId, `${p.pieceId} ${p.piece}`, bars, {
      ...{ says: [says, leaves, safe, risk, held].filter(Boolean).join(' · '), warns: p.late, post_ms: post },
    })
  }
  return computed((): Lane[] => {
    const { bars = [], people = [], rooms = [], pieces = [] } = table.value ?? {}
    if (by.value === 'pieces')
      return pieces
        .map(p =>
          pieceLane(
            p,
            bars.filter(b => b.pieceId === p.pieceId),
          ),
        )
        .filter(l => l.bars.length > 0)
    // what hangs on a yes takes nobody's time: it stands by piece only
    const sure = bars.filter(b => !b.ifYes)
    if (by.value === 'rooms')
      return rooms.map(r =>
        laneOf(
          r.id,
          r.name,
          sure.filter(b => b.roomId === r.id),
          { air: r.air },
        ),
      )
    return people.map(p =>
      laneOf(
        p.id,
        p.name,
        sure.filter(b => b.personId === p.id),
      ),
    )
  })
}
