import { WORDS } from '~/words/en'

type Words = typeof WORDS
/** One text, or two: for one and for many, told apart by `n`. */
type Text = string | readonly [one: string, many: string]
type PathsOf<T> = {
  [K in keyof T & string]: T[K] extends Text ? K : `${K}.${PathsOf<T[K]>}`
}[keyof T & string]
/** Every place of a text, such as `now.windows`. */
export type Key = PathsOf<Words>
type At<T, K extends string> = K extends keyof T
  ? T[K]
  : K extends `${infer Head}.${infer Rest}`
    ? Head extends keyof T
      ? At<T[Head], Rest>
      : never
    : never
type Blanks<S> = S extends readonly [infer One, infer Many]
  ? Blanks<One> | Blanks<Many> | 'n'
  : S extends `${string}{${infer Name}}${infer Rest}`
    ? Name | Blanks<Rest>
    : never
/** Places whose text has no blank. */
export type PlainKey = { [K in Key]: [Blanks<At<Words, K>>] extends [never] ? K : never }[Key]
type Given = string | number
type Fillings<K extends Key> = [Blanks<At<Words, K>>] extends [never]
  ? [given?: Record<string, Given>]
  : [given: Record<Blanks<At<Words, K>>, Given>]

const isText = (value: unknown): value is Text => typeof value === 'string' || Array.isArray(value)
function flat(table: object, path = ''): [string, Text][] {
  return Object.entries(table).flatMap(([name, value]): [string, Text][] =>
    isText(value) ? [[path + name, value]] : flat(value as object, `${path}${name}.`),
  )
}
const texts = new Map(flat(WORDS))
const plural = new Intl.PluralRules('en')

/** The words at a place, its blanks filled in. An unknown place, or a blank left open, does not pass the type check. */
export function w<K extends Key>(key: K, ...[given]: Fillings<K>): string {
  const filled: Record<string, Given> = given ?? {}
  const text = texts.get(key) ?? key
  const form = typeof text === 'string' ? text : text[plural.select(Number(filled.n)) === 'one' ? 0 : 1]
  return form.replace(/\{(\w+)\}/g, (blank, name: string) => String(filled[name] ?? blank))
}

type Table = { [K in keyof Words]: Words[K] extends Text ? never : K }[keyof Words]
/** The place of a slug's word in a table, where table and slug are only known to belong together. */
export const wordOf = (table: Table, slug: string) => `${table}.${slug}` as PlainKey
