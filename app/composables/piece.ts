import type { InjectionKey, ShallowRef } from 'vue'

/** The piece that the open page is about. */
export const PIECE: InjectionKey<{ page: ShallowRef<PiecePage | null>; load: () => Promise<void> }> = Symbol('piece')
