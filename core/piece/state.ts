/** Where a piece is, from being asked about to being at home. */
export const PIECE_STATES = ['enquiry', 'active', 'ready', 'handed-over', 'part-done', 'declined'] as const
export type PieceState = (typeof PIECE_STATES)[number]
/** It went home, done or part done: its record is closed. */
export const wentHome = (state: string | null | undefined): boolean => state === 'handed-over' || state === 'part-done'
