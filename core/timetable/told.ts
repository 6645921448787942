import type { StepState } from './mayStart'
import type { Spell } from './spells'

/** An act at the bench that only the device at which it was done knows of. */
export interface ToldAct {
  kind: string
  at_ms: number
  person: { id: number; name: string }
  /** to whom it was handed on */
  to?: { id: number; name: string }
  /** a section that went on, came off, or was taken back */
  section?: 'on' | 'off' | 'back'
}
interface Bench {
  state: StepState
  started_ms: number | null
  finished_ms: number | null
  spells: readonly Spell[]
}

/** Spells that are not known to the server yet have numbers below zero. */
const begun = (n: number, { id, name }: ToldAct['person'], from_ms: number): Spell => ({
  id: -n,
  personId: id,
  by: name,
  at: null,
  from_ms,
  to_ms: null,
})
const ended = (spells: readonly Spell[], at_ms: number): Spell[] =>
  spells.map(s => (s.to_ms === null ? { ...s, to_ms: Math.max(s.from_ms, at_ms) } : s))

function after(bench: Bench, act: ToldAct, n: number): Bench {
  const { at_ms, person } = act
  const { spells } = bench
  switch (act.kind) {
    case 'start':
      if (bench.state !== 'planned') return bench
      return { state: 'running', started_ms: at_ms, finished_ms: null, spells: [begun(n, person, at_ms)] }
    case 'finish':
      return bench.state === 'running'
        ? { ...bench, state: 'done', finished_ms: at_ms, spells: ended(spells, at_ms) }
        : bench
    case 'pause':
      return { ...bench, spells: ended(spells, at_ms) }
    case 'go-on':
      return bench.state === 'running' ? { ...bench, spells: [...spells, begun(n, person, at_ms)] } : bench
    case 'hand-on':
      return { ...bench, spells: [...ended(spells, at_ms), begun(n, act.to ?? person, at_ms)] }
    case 'undo':
      if (bench.state === 'done')
        return {
          ...bench,
          state: 'running',
          finished_ms: null,
          spells: spells.map(s => (s.to_ms === bench.finished_ms ? { ...s, to_ms: null } : s)),
        }
      return bench.state === 'running' ? { state: 'planned', started_ms: null, finished_ms: null, spells: [] } : bench
    default:
      return bench
  }
}

/** What a step has become by acts that have not gone in yet, in their order. All else of it stays. */
export function withTold<S extends Bench>(step: S, acts: readonly ToldAct[]): S {
  const { state, started_ms, finished_ms, spells } = step
  const told = acts.reduce<Bench>((b, act, i) => after(b, act, i + 1), { state, started_ms, finished_ms, spells })
  return { ...step, ...told }
}
