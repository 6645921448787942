import { datesOf } from '../plan/judge'
import { readHours } from '../shop/rows'
import { readActive } from './active'
import { eachPiece } from './now'

interface TimetableLine {
  pieceId: number
  piece: string
  dueOn: string | null
  held: boolean
  late: boolean
  readyLikely_ms: number | null
  readySafe_ms: number | null
  steps: { key: string; start_ms: number; end_ms: number; title: string; attended_min: number }[]
}
/** The next seven days as waits and hours give them. */
export async function timetablePage(at: Date) {
  const [{ pieces: active, unreadable }, hours] = await Promise.all([readActive(), readHours()])
  const until = at.getTime() + 7 * 86_400_000
  const pieces: TimetableLine[] = []
  const strange = await eachPiece(active, ({ file }, plan) => {
    if (!plan) return
    const dates = datesOf(plan, hours, at)
    const held = plan.steps.some(st => st.kind === 'approval' && st.state === 'planned')
    const titles = new Map(plan.steps.map(st => [st.key, st]))
    pieces.push({
      pieceId: file.piece.id,
      piece: file.piece.name,
      dueOn: file.piece.due_on,
      held,
      readyLikely_ms: dates.readyLikely_ms,
      readySafe_ms: dates.readySafe_ms,
      late:
        file.piece.due_on !== null &&
        dates.readySafe_ms !== null &&
        new Date(dates.readySafe_ms).toISOString().slice(0, 10) > file.piece.due_on,
      steps: dates.safe
        .filter(
          f => titles.get(f.key)?.state === 'planned' && titles.get(f.key)!.kind !== 'approval' && f.start_ms < until,
        )
        .map(f => ({ ...f, title: titles.get(f.key)!.title, attended_min: titles.get(f.key)!.attended_min })),
    })
  })
  return { now_ms: at.getTime(), zone: hours.zone, hours, pieces, unreadable: [...unreadable, ...strange] }
}
