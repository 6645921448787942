/** A walk round the piece: which questions matter for it, in order, as far as the answers go. */
import { type Facts, isFound } from '../piece'
import { type PartFaces, type Question, STATIONS, type Station, type WalkOption } from './question'
import { QUESTIONS } from './questions'

/** `key`: the question's slug, with `|part` when it is asked of each part. */
export interface WalkAnswer {
  key: string
  options: readonly string[]
}

export interface Asked extends Omit<Question, 'when'> {
  key: string
  question: string
  part: string | null
  answer: readonly string[] | null
}
export interface Walk {
  questions: Asked[]
  next: Asked | null
  done: number
  total: number
  stations: { station: Station; done: number; total: number }[]
}

export const keyOf = (question: string, part: string | null): string =>
  part === null ? question : `${question}|${part}`
const questionOf = (key: string) => key.split('|')[0]!

/** Options chosen, as `question:option`. */
export const saidOf = (answers: readonly WalkAnswer[]): Set<string> =>
  new Set(answers.flatMap(a => a.options.map(o => `${questionOf(a.key)}:${o}`)))

const partsOf = (facts: Facts): PartFaces[] => {
  const inScope = facts.faces.filter(f => f.scope === 'refinish')
  return [...new Set(inScope.map(f => f.part))].map(name => ({ name, faces: inScope.filter(f => f.part === name) }))
}

/**
 * The questions of this piece, those answered and the next one. Station by station; a question that an answer raised
 * stands at its station.
 */
export function walkRound(facts: Facts, answers: readonly WalkAnswer[]): Walk {
  const given = new Map(answers.map(a => [a.key, a.options]))
  const context = {
    facts,
    said: saidOf(answers),
    found: (...kinds: Parameters<typeof isFound>[1][]) => isFound(facts, ...kinds),
  }
  const parts = partsOf(facts)
  const asked = QUESTIONS.flatMap((q): Asked[] => {
    const { when, ...rest } = q
    const targets = q.per === 'part' ? parts : [null]
    return targets
      .filter(part => given.has(keyOf(q.slug, part?.name ?? null)) || when(context, part))
      .map(part => {
        const key = keyOf(q.slug, part?.name ?? null)
        return { ...rest, key, question: q.slug, part: part?.name ?? null, answer: given.get(key) ?? null }
      })
  }).sort((a, b) => STATIONS.indexOf(a.station) - STATIONS.indexOf(b.station))
  const stations = STATIONS.map(station => {
    const own = asked.filter(q => q.station === station)
    return { station, done: own.filter(q => q.answer).length, total: own.length }
  })
  const done = asked.filter(q => q.answer).length
  return { questions: asked, next: asked.find(q => !q.answer) ?? null, done, total: asked.length, stations }
}

/**
 * The options of an answer.
 * @throws RangeError when the question is not one of the walk, or has no such option, or mixes "nothing" with
 * something.
 */
export function optionsOf(key: string, chosen: readonly string[]): WalkOption[] {
  const question = QUESTIONS.find(q => q.slug === questionOf(key))
  if (!question) throw new RangeError('The walk has no such question.')
  const options = chosen.map(slug => {
    const found = question.options.find(o => o.slug === slug)
    if (!found) throw new RangeError(`"${slug}" is no answer to this question.`)
    return found
  })
  if (options.length === 0) throw new RangeError('Choose an answer.')
  if (options.length > 1 && (!question.many || chosen.includes(question.nothing ?? '')))
    throw new RangeError('Only one answer goes here.')
  return options
}
