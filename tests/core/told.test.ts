import { describe, expect, it } from 'vitest'
import { type Spell, type StepState, type ToldAct, withTold, worked_min } from '#core/timetable'

const MIN = 60_000
const tove = { id: 1, name: 'Tove' }
const emil = { id: 2, name: 'Emil' }
const act = (kind: string, min: number, person = tove, to?: typeof emil): ToldAct => ({
  ...{ kind, at_ms: min * MIN, person, to },
})
const planned = {
  state: 'planned' as StepState,
  started_ms: null as number | null,
  finished_ms: null as number | null,
  spells: [] as readonly Spell[],
}

describe('what a step becomes by acts that have not gone in', () => {
  it.each([
    ['nothing', [], 'planned', 0],
    ['started', [act('start', 0)], 'running', 60],
    ['done', [act('start', 0), act('finish', 25)], 'done', 25],
    ['put aside and gone on with', [act('start', 0), act('pause', 10), act('go-on', 30)], 'running', 40],
    ['helped', [act('start', 0), act('go-on', 30, emil)], 'running', 90],
    ['handed on', [act('start', 0), act('hand-on', 20, tove, emil), act('finish', 50)], 'done', 50],
    ['done, and that taken back', [act('start', 0), act('finish', 25), act('undo', 26)], 'running', 60],
    ['all taken back', [act('start', 0), act('undo', 1)], 'planned', 0],
    ['a note and a look change nothing', [act('note', 3), act('dry', 4)], 'planned', 0],
    ['an end without a beginning', [act('finish', 5)], 'planned', 0],
  ] as const)('%s', (_, acts, state, minutes) => {
    const is = withTold(planned, acts)
    expect(is.state).toBe(state)
    expect(worked_min(is.spells, 60 * MIN)).toBe(minutes)
  })
  it('keeps whose hands it was in, and all else of the step', () => {
    const is = withTold({ ...planned, title: 'Sand' }, [act('start', 0), act('hand-on', 20, tove, emil)])
    expect(is.title).toBe('Sand')
    expect(is.spells.map(s => [s.by, s.to_ms === null])).toEqual([
      ['Tove', false],
      ['Emil', true],
    ])
    expect(planned.spells).toEqual([])
  })
})
