import type { Fields } from '#core/acts'

/** Fields as stored; null where they are damaged. A JSON column that cannot be parsed comes as its text. */
export const fieldsIn = (stored: unknown): Fields | null =>
  typeof stored === 'object' && stored !== null && !Array.isArray(stored) && isFields(stored) ? stored : null
/** Lists of counted kinds where lists belong, numbers where numbers do. */
const isFields = (fields: object): boolean =>
  Object.entries(fields as Record<string, unknown>).every(([field, value]) => {
    if (field === 'spots' || field === 'repairs') return Array.isArray(value) && value.every(isCounted)
    return !/_mm$|_pct$|^of$/.test(field) || typeof value === 'number'
  })
const isCounted = (row: { kind?: unknown; places?: unknown } | null) =>
  typeof row?.kind === 'string' && typeof row.places === 'number'
