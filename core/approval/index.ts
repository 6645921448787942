/** What was approved, written so that the same content always gives the same text. */

export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json }

/**
 * Canonical JSON: keys sorted, no white space, numbers as JavaScript writes them.
 * @throws TypeError for a number that is not finite.
 */
export function canonicalJson(value: Json): string {
  if (typeof value === 'number' && !Number.isFinite(value))
    throw new TypeError('A number that is not finite cannot be written down.')
  if (value === null || typeof value !== 'object') return JSON.stringify(value)
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`
  const row = value as { readonly [key: string]: Json }
  return `{${Object.keys(row)
    .sort()
    .map(k => `${JSON.stringify(k)}:${canonicalJson(row[k]!)}`)
    .join(',')}}`
}

/** Must the client be asked again? Only when the new worst price is beyond the worst that was accepted. */
export const mustAskAgain = (acceptedWorst_minor: number, newWorst_minor: number): boolean =>
  newWorst_minor > acceptedWorst_minor

export * from './question'
export * from './overrun'
export * from './erased'
