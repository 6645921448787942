/** What kind of piece a name says it is. */
import type { PieceKind } from './template'

/** Words of names by kind, the telling ones first: a chest of drawers is no chest, a table chair is a chair. */
export const KIND_WORDS: readonly (readonly [PieceKind, readonly string[]])[] = [
  ['chest-of-drawers', ['chest of drawers', 'drawers', 'commode', 'tallboy', 'highboy', 'lowboy', 'dresser']],
  ['armchair', ['armchair', 'arm chair', 'carver', 'rocking chair', 'rocker', 'settee', 'sofa']],
  ['chair', ['chair', 'chairs']],
  ['stool', ['stool', 'footstool', 'stools']],
  ['bench', ['bench', 'pew', 'settle']],
  ['desk', ['desk', 'bureau', 'secretaire', 'davenport', 'roll-top']],
  ['wardrobe', ['wardrobe', 'armoire', 'linen press', 'press']],
  ['bookcase', ['bookcase', 'bookcases', 'shelves', 'shelf', 'etagere', 'whatnot']],
  ['cabinet', ['cabinet', 'cupboard', 'sideboard', 'buffet', 'credenza', 'vitrine', 'nightstand', 'washstand', 'bar']],
  ['table', ['table', 'tables', 'table top', 'tabletop', 'worktop', 'countertop', 'leaf', 'leaves']],
  ['bed', ['bed', 'bedstead', 'headboard', 'cradle', 'cot']],
  ['frame', ['frame', 'frames', 'mirror']],
  ['door', ['door', 'doors', 'gate', 'shutter', 'shutters']],
  ['box', ['box', 'chest', 'trunk', 'coffer', 'case', 'casket']],
]
/** The kind that a piece's name tells, or null where it tells none. */
export function kindOf(name: string): PieceKind | null {
  const words = ` ${name.toLowerCase().replaceAll(/[^\p{L}\p{N}-]+/gu, ' ')} `
  return KIND_WORDS.find(([, told]) => told.some(w => words.includes(` ${w} `)))?.[0] ?? null
}
