/** The treatment record for owner or museum: what was found, what was done with what, how it comes off again. */
import type { Material } from '../materials'
import type { Paper } from './paper'
import { heading, listUnder } from './parts'

export interface RecordStep {
  /** a day in words */
  on: string
  title: string
  /** product and lot, as they were used; '': none */
  used: string
}
export interface TreatmentRecord {
  id: number
  shop: string
  client: string
  piece: string
  madeOn: string
  takenInOn: string
  found: readonly string[]
  finishes: readonly string[]
  tests: readonly string[]
  steps: readonly RecordStep[]
  /** the materials that stay on the piece */
  materials: readonly Pick<Material, 'name' | 'base' | 'role' | 'meltsIn' | 'potLife_min'>[]
  kept: readonly string[]
}

/** How a material comes off again (common practice). */
export function comesOff({ base, role, meltsIn, potLife_min }: TreatmentRecord['materials'][number]): string {
  if (role === 'wax') return 'comes off with white spirit'
  if (role === 'stain') return 'lies in the wood; only sanding or bleach takes it out'
  if (potLife_min && role === 'film') return 'cured in two parts: comes off only by machine or strong stripper'
  if (role === 'oil') return 'lies in the wood and stays; what lies on it comes off with stripper'
  if (base === 'alcohol') return 'dissolves in alcohol'
  if (base === 'lacquer' && meltsIn) return 'dissolves in lacquer thinner'
  return 'comes off with stripper'
}

export function recordPaper(r: TreatmentRecord): Paper {
  return {
    title: `Treatment record: ${r.piece}`,
    from: [r.shop, r.madeOn],
    foot: `${r.shop} · piece ${r.id}`,
    parts: [
      {
        kind: 'facts',
        rows: [
          ['Owner', r.client],
          ['Taken in', r.takenInOn],
          ...(r.kept.length ? [['Kept as it was', r.kept.join(', ')] as const] : []),
        ],
      },
      ...listUnder('What was found', r.found),
      ...listUnder('Finish that was on it', [...r.finishes, ...r.tests]),
      heading('What was done'),
      {
        kind: 'table',
        says: 'Steps done, by day, with product and lot',
        columns: [
          { head: 'On', share: 0.2 },
          { head: 'Step', share: 0.46 },
          { head: 'With', share: 0.34 },
        ],
        rows: r.steps.map(s => [s.on, s.title, s.used]),
      },
      ...listUnder(
        'How it comes off again',
        r.materials.map(m => `${m.name}: ${comesOff(m)}`),
      ),
    ],
  }
}
