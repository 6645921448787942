/** Names taken out of what is kept. */

export const ERASED = '(erased)'
const SHORTEST = 3
const literal = (text: string) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`)
const anyOf = (names: readonly string[]) =>
  [...new Set(names.map(n => n.trim()).filter(n => n.length >= SHORTEST))]
    .sort((a, b) => b.length - a.length)
    .map(n => literal(n).replaceAll(/\s+/g, String.raw`\s+`))
    .join('|')
const without = (text: string, any: string, flags: string): string =>
  any
    ? text.replaceAll(new RegExp(String.raw`(?<![\p{L}\p{N}])(?:${any})(?![\p{L}\p{N}])`, `gu${flags}`), ERASED)
    : text
/** A text in which none of the names, addresses and numbers stands any more, in small letters or large. */
export const withoutNames = (text: string, names: readonly string[]): string => without(text, anyOf(names), 'i')
/**
 * The same with each word of a name by itself, as people are called; written as in the name, so that an oak stays an
 * oak where somebody is called Oak.
 */
export const withoutAnyName = (text: string, names: readonly string[]): string =>
  without(
    withoutNames(text, names),
    anyOf(names.flatMap(n => (n.includes('@') ? [] : n.split(/[\s,]+/))).filter(p => /\p{L}{3}/u.test(p))),
    '',
  )
