import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { type House, USUAL_HOUSE } from '#core/house'
import type { Facts } from '#core/piece'
import type { Picked } from '../facts'
import { randomPiece } from './randomPieces'
import { written } from './written'

/**
 * What the planner makes of the demo's pieces and of a hundred made-up ones, kept as files. These are no facts of the
 * trade: they show what a change of the code changes. Write them anew with `npx vitest run tests/golden -u`, look at
 * the difference, and name it in the commit.
 */
const demo = JSON.parse(readFileSync(new URL('demo.json', import.meta.url), 'utf8')) as Record<
  string,
  { facts: Facts; choice: Picked & { house?: House } }
>
const RANDOM = 100
const A_FILE = 10

describe('plans, waits, amounts and verdicts are as kept', () => {
  it("of the demo's pieces", async () => {
    await expect(
      Object.entries(demo)
        .map(([name, p]) => written(name, p.facts, p.choice, p.choice.house ?? USUAL_HOUSE))
        .join('\n'),
    ).toMatchFileSnapshot('plans/demo.txt')
  })

  it.each(Array.from({ length: RANDOM / A_FILE }, (_, i) => i))('of made-up pieces, file %i', async file => {
    const pieces = Array.from({ length: A_FILE }, (_, i) => file * A_FILE + i)
    const lines = pieces.map(n => {
      const piece = randomPiece(n)
      return written(`made up ${n}`, piece.facts, piece.choice, piece.house)
    })
    await expect(lines.join('\n')).toMatchFileSnapshot(`plans/random-${file}.txt`)
  })
})
