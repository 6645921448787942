/** Median grain size in µm. P: ISO 6344-2/-3. CAMI: ANSI B74.18. Both from memory. */
export const P_MEDIAN_UM: Readonly<Record<number, number>> = {
  12: 1815,
  16: 1324,
  20: 1000,
  24: 764,
  30: 642,
  36: 538,
  40: 425,
  50: 336,
  60: 269,
  80: 201,
  100: 162,
  120: 125,
  150: 100,
  180: 82,
  220: 68,
  240: 58.5,
  280: 52.2,
  320: 46.2,
  360: 40.5,
  400: 35,
  500: 30.2,
  600: 25.8,
  800: 21.8,
  1000: 18.3,
  1200: 15.3,
  1500: 12.6,
  2000: 10.3,
  2500: 8.4,
}

export const CAMI_MEDIAN_UM: Readonly<Record<number, number>> = {
  24: 708,
  36: 530,
  40: 425,
  50: 348,
  60: 265,
  80: 190,
  100: 140,
  120: 115,
  150: 92,
  180: 82,
  220: 68,
  240: 53,
  280: 44,
  320: 36,
  360: 28,
  400: 23,
  500: 20,
  600: 16,
  800: 12.2,
  1000: 9.2,
  // a polishing paper, about (handbook 6.1)
  1500: 6,
}

/** The P grits a shop usually keeps (common practice). */
export const SHELF_P: readonly number[] = [60, 80, 100, 120, 150, 180, 220, 320, 400, 600, 800, 1000, 1200]

/** Where bare wood or film is left for what comes next: accepted range and the one taken, P scale (common practice). */
export const STOP_P = {
  'stain': { min: 150, max: 180, take: 180, why: 'finer closes the pores: paler colour' },
  'dye': { min: 180, max: 220, take: 220, why: 'finer takes less, so colour stays under control' },
  'hardwax': { min: 150, max: 180, take: 150, why: 'needs fibres to hold on to' },
  'gel-over-film': { min: 220, max: 320, take: 220, why: 'only for grip' },
  'varnish-oil': { min: 220, max: 240, take: 220, why: 'nothing hides scratches' },
  'film': { min: 180, max: 220, take: 180, why: 'a thick film fills P180 scratches' },
  'recoat-film': { min: 220, max: 320, take: 320, why: 'grip for the new film; coarser shows through' },
  'between-coats': { min: 320, max: 400, take: 320, why: 'grip without cutting through' },
} as const

export type StopFor = keyof typeof STOP_P

/**
 * What else cuts or polishes, in µm of the P scale's medians: only ever "about" (handbook 6.1). Foam 3000 about 5; the
 * others shop defaults, unsourced.
 */
export const ABOUT_UM = {
  foam: { 1000: 15, 2000: 7.5, 3000: 5, 4000: 3.75 },
  wool: { '3': 162, '2': 125, '1': 82, '0': 58.5, '00': 40.5, '000': 30.2, '0000': 21.8 },
  pad: { brown: 100, green: 68, maroon: 46.2, grey: 21.8, white: 12.6 },
  powder: { pumice: 10, rottenstone: 4 },
} as const satisfies Readonly<Record<string, Readonly<Record<string, number>>>>
