/** Licences that lift what is otherwise forbidden. Whose, its number and until when is recorded under Shop. */
export const LICENCES = ['isocyanates', 'methylene-chloride'] as const
export type LicenceKind = (typeof LICENCES)[number]
