/** Looks at what dries: by what it is tried. */
export const DRY_TRIES = ['rag', 'dust', 'thumbnail', 'tack', 'nose'] as const
export type DryTry = (typeof DRY_TRIES)[number]

/** What each try says, dry and not dry. Handbook 12, common practice. */
export const DRY_SAYS: Readonly<Record<DryTry, { by: string; dry: string; not: string }>> = {
  rag: { by: 'A clean rag', dry: 'it picks nothing up', not: 'it still picks up oil' },
  dust: { by: 'Sanding dust', dry: 'white powder', not: 'it gums the paper' },
  thumbnail: { by: 'Thumbnail, where nobody looks', dry: 'no dent', not: 'it dents' },
  tack: { by: 'Back of a finger', dry: 'no tack', not: 'tacky' },
  nose: { by: 'Nose', dry: 'no solvent to smell', not: 'it smells of solvent' },
}

/** A quarter of the least wait, and never under a quarter of an hour. Shop default. */
const LEAST_MIN = 15
/** Minutes until one looks again at what was not dry. */
export const lookAgain_min = (wait_min: number): number => Math.max(LEAST_MIN, wait_min / 4)
