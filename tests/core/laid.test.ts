import { describe, expect, it } from 'vitest'
import { MATERIALS } from '#core/materials'
import { FINISH_CLASSES, FOUND_AS, layersLaid } from '#core/piece'

describe('what was laid', () => {
  it('is found again for every product that stays on a piece, as a finish that is known', () => {
    const stays = MATERIALS.filter(m => ['film', 'oil', 'wax'].includes(m.role)).map(m => m.slug)
    expect(stays.filter(slug => !FOUND_AS[slug])).toEqual([])
    for (const finish of Object.values(FOUND_AS)) expect(FINISH_CLASSES).toContain(finish)
  })
  it('is told from the top down, coats of one kind as one layer', () => {
    expect(layersLaid(['dewaxed-shellac', 'oil-polyurethane', 'oil-polyurethane', 'paste-wax'])).toEqual([
      ...['wax', 'oil-polyurethane', 'shellac'],
    ])
    expect(layersLaid(['pigment-stain', 'varnish-oil', 'varnish-oil'])).toEqual(['oil'])
    expect(layersLaid([])).toEqual([])
  })
})
