/** Rags with drying oil, until they cannot catch fire any more. */
export const RAG_WAYS = ['flat', 'water', 'gone'] as const
export type RagWay = (typeof RAG_WAYS)[number]
/** Laid out flat, singly, in the open until they are stiff, hours (common practice). */
export const STIFF_H = 48
/** Nobody is asked about older ones: they are stiff, or have burnt. Those that were told of are shown until gone. */
export const [ASKED_FOR_H, SHOWN_FOR_H] = [72, 60 * 24] as const

export interface RagLine {
  since_ms: number
  how: RagWay | null
}
/**
 * Where oily rags stand: `ask` nobody has said; `stiffening` laid flat, safe at `safe_ms`; `stiff` to be put into the
 * bin; `wet` under water until they are taken away as waste; `gone`.
 */
export function ragState({ since_ms, how }: RagLine, now_ms: number) {
  const safe_ms = since_ms + STIFF_H * 3_600_000
  if (how === null) return { state: 'ask' as const, safe_ms: null }
  if (how === 'gone') return { state: 'gone' as const, safe_ms: null }
  if (how === 'water') return { state: 'wet' as const, safe_ms: null }
  return { state: now_ms < safe_ms ? ('stiffening' as const) : ('stiff' as const), safe_ms }
}
