/** When a piece was made. */
export const PERIODS = ['before-1850', '1850-1925', '1925-1960', '1960-1990', 'after-1990'] as const
export type Period = (typeof PERIODS)[number] | 'unknown'
