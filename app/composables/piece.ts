import type { InjectionKey, ShallowRef } from 'vue'

/** From this chance of being late on, a promise is in danger (it is honest at 80 %). */
export const RISKY = 0.2

/** The piece that the open page is about. */
export const PIECE: InjectionKey<{ page: ShallowRef<PiecePage | null>; load: () => Promise<void> }> = Symbol('piece')
