/** Work that took longer than it was planned: told to the client before the worst that was agreed is passed. */
export interface StageTime {
  says: string
  planned_min: number
  worked_min: number
}
export interface Overrun {
  says: string
  more_min: number
}
/** Less than this is not worth a word, minutes. */
const LEAST_MIN = 15
const MOST = 3

/** The stages that ran over most, the longest first. */
export const overruns = (stages: readonly StageTime[]): Overrun[] =>
  stages
    .map(s => ({ says: s.says, more_min: Math.round(s.worked_min - s.planned_min) }))
    .filter(s => s.more_min >= LEAST_MIN)
    .sort((a, b) => b.more_min - a.more_min)
    .slice(0, MOST)

const timeSaid = (min: number) =>
  min < 60 ? `${min} min` : `${Math.floor(min / 60)} h${min % 60 ? ` ${min % 60} min` : ''}`
/** Why it costs more, for the client; '': nothing took longer. */
export const overrunSaid = (over: readonly Overrun[]): string =>
  over.length ? `Took longer than planned: ${over.map(o => `${o.says}, ${timeSaid(o.more_min)}`).join('; ')}.` : ''
