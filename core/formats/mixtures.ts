/** Recipes and pots from tables: a line for each thing that is in one; what a recipe or pot is stands on its first. */
import { type Column, numberIn, readLines, type TableRead } from './table'

interface Part {
  line: number
  /** number and name, which tell one from the next */
  of: string
  part: string
  /** share in %, or g */
  n: number
  cells: Readonly<Record<string, string>>
}
type Group = readonly [Part, ...Part[]]
const groupsOf = (parts: readonly Part[]): Group[] => {
  const groups = new Map<string, [Part, ...Part[]]>()
  for (const p of parts) {
    const group = groups.get(p.of)
    if (group) group.push(p)
    else groups.set(p.of, [p])
  }
  return [...groups.values()]
}
const YES = /^(yes|1|true|x)$/i
const MOST_G = 100_000
/** Lines as groups; what a group refuses stands at its first line. */
function grouped<L>(read: TableRead<Part>, made: (group: Group) => L): TableRead<L> {
  const wrong = [...read.wrong]
  const lines = groupsOf(read.lines).flatMap(group => {
    try {
      return [made(group)]
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      wrong.push({ line: group[0].line, says: error.message })
      return []
    }
  })
  return { lines, wrong }
}
function partIn(line: number, cells: Record<'no' | 'name' | 'part' | 'n', string>, most: number, unit: string): Part {
  if (!cells.name || cells.name.length > 120) throw new RangeError('there is no name, or it is longer than 120 letters')
  if (!cells.part || cells.part.length > 120) throw new RangeError('it does not say what is in it')
  const n = numberIn(cells.n)
  if (n === null || n <= 0 || n > most)
    throw new RangeError(`"${cells.n.slice(0, 24)}" ${unit}: above 0, up to ${most}`)
  return { line, of: `${cells.no} ${cells.name.toLowerCase()}`, part: cells.part, n, cells }
}

export interface RecipeLine {
  line: number
  name: string
  /** names of readings; '' where there is none */
  wood: string
  sapwood: string
  target: string
  coats: number
  wipe: string
  clearCoat: string
  lights: string[]
  observer: string
  bleached: boolean
  note: string
  shares: { colourant: string; pct: number }[]
}
const RECIPE = [
  { key: 'no', heads: ['recipe'] },
  { key: 'name', heads: ['name'], needed: true },
  { key: 'wood', heads: ['wood'], needed: true },
  { key: 'sapwood', heads: ['sapwood'] },
  { key: 'target', heads: ['target'], needed: true },
  { key: 'part', heads: ['colourant'], needed: true },
  { key: 'n', heads: ['share'], needed: true },
  { key: 'coats', heads: ['coats'] },
  { key: 'wipe', heads: ['wipe'] },
  { key: 'clearCoat', heads: ['clear coat'] },
  { key: 'lights', heads: ['lights', 'light'] },
  { key: 'observer', heads: ['observer'] },
  { key: 'bleached', heads: ['bleached'] },
  { key: 'note', heads: ['note'] },
] as const satisfies readonly Column<string>[]
type RecipeCells = Record<(typeof RECIPE)[number]['key'], string>

/** @throws RangeError where it is no such table at all. */
export const readRecipes = (text: string): TableRead<RecipeLine> =>
  grouped(
    readLines(
      text,
      RECIPE,
      (line, cells) => partIn(line, cells, 100, '%'),
      p => `"${p.part}" in "${p.cells.name}" (${p.of})`,
    ),
    group => {
      const { line, cells } = group[0]
      const { name, wood, sapwood, target, wipe, clearCoat, lights, observer, bleached, note } = cells as RecipeCells
      if (!wood || !target) throw new RangeError('a recipe names the readings of its wood and its target')
      return {
        ...{ line, name, wood, sapwood, target, clearCoat, note },
        ...{ coats: numberIn((cells as RecipeCells).coats) ?? 1, wipe: wipe || 'none', observer: observer || '10' },
        lights: (lights || 'd65').toLowerCase().split(/[ ,/]+/),
        bleached: YES.test(bleached),
        shares: group.map(p => ({ colourant: p.part, pct: p.n })),
      }
    },
  )

export interface PotLine {
  line: number
  name: string
  /** of its recipe; '' where it has none */
  recipe: string
  /** ISO, local; '' where nobody says when */
  mixed: string
  lasts_min: number | null
  left_g: number | null
  place: string
  emptied: boolean
  note: string
  contents: { name: string; density_g_ml: number | null; g: number }[]
}
const POT = [
  { key: 'no', heads: ['pot'] },
  { key: 'name', heads: ['name'], needed: true },
  { key: 'part', heads: ['content'], needed: true },
  { key: 'n', heads: ['poured'], needed: true },
  { key: 'density', heads: ['density'] },
  { key: 'recipe', heads: ['recipe'] },
  { key: 'mixed', heads: ['mixed'] },
  { key: 'lasts', heads: ['lasts'] },
  { key: 'left', heads: ['left'] },
  { key: 'place', heads: ['place'] },
  { key: 'emptied', heads: ['emptied'] },
  { key: 'note', heads: ['note'] },
] as const satisfies readonly Column<string>[]
type PotCells = Record<(typeof POT)[number]['key'], string>
const within = (n: number | null, most: number, what: string): number | null => {
  if (n !== null && (n < 0 || n > most)) throw new RangeError(`${what} is below nought or above ${most}`)
  return n
}

/** @throws RangeError where it is no such table at all. */
export const readPots = (text: string): TableRead<PotLine> =>
  grouped(
    readLines(
      text,
      POT,
      (line, cells) => partIn(line, cells, MOST_G, 'g'),
      p => `"${p.part}" in "${p.cells.name}" (${p.of})`,
    ),
    group => {
      const { line, cells } = group[0]
      const { name, recipe, mixed, place, emptied, note, left, lasts } = cells as PotCells
      if (mixed && !/^20\d\d-\d\d-\d\d( \d\d:\d\d(:\d\d)?)?$/.test(mixed))
        throw new RangeError(`"${mixed.slice(0, 24)}" is no moment; write it as 2027-05-31 14:30`)
      const contents = group.map(p => ({
        ...{ name: p.part, g: p.n },
        density_g_ml: within(numberIn((p.cells as PotCells).density) || null, 20, 'a density'),
      }))
      return {
        ...{ line, name, recipe, mixed: mixed.replace(' ', 'T'), place: place.slice(0, 60), note, contents },
        lasts_min: within(numberIn(lasts), 60_000, 'how long it lasts'),
        left_g: within(numberIn(left), MOST_G, 'what is left'),
        emptied: emptied !== '',
      }
    },
  )
