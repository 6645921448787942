import { describe, expect, it } from 'vitest'
import { MATERIALS, materialOf } from '#core/materials'
import { CARE, careKind, renewAfter_y, useFrom } from '#core/papers'

/**
 * How finishes are lived with, against the handbook: words with the client (14) and renewing oil and wax (18). Common
 * practice.
 */
const DAY_MS = 86_400_000
describe('care', () => {
  it('oiled or resin-oil tops: strong soap, P220 or a pad, one more coat, every year or two', () => {
    for (const slug of ['varnish-oil', 'resin-oil-varnish', 'raw-linseed', 'boiled-linseed', 'hardwax-oil-2c']) {
      const kind = careKind(materialOf(slug))
      for (const use of ['hard', 'daily'] as const) expect([1, 2]).toContain(renewAfter_y(kind, use))
      expect(CARE[kind].renew).toMatch(/strong soap.*P220 or a pad.*[Oo]ne thin coat/s)
    }
  })
  it('a ring on an oiled top: wool and oil, then the whole top once', () => {
    expect(CARE.renewed.spot).toMatch(/wool.*oil.*whole top once/s)
  })
  it('wax: solvent off first where old wax is dark; once a year', () => {
    expect(CARE.wax.spot).toMatch(/white spirit/)
    expect(renewAfter_y('wax', 'daily')).toBe(1)
  })
  it('shellac: not for hot, wet or alcohol use', () => {
    expect(careKind(materialOf('shellac-brushed'))).toBe('melts')
    for (const word of [/spirits/, /hot/, /water/]) expect(CARE.melts.avoid.join(' ')).toMatch(word)
  })
  it('what not to use on any: silicone polish; rags with oil burn by themselves', () => {
    for (const { avoid } of Object.values(CARE)) expect(avoid.join(' ')).toMatch(/silicone/)
    expect(CARE.renewed.renew).toMatch(/fire/)
  })
  it('lacquer is rubbed or used hard after two to three weeks and longer', () => {
    const { hard_ms } = useFrom(materialOf('nitrocellulose-lacquer'), 0)
    expect(hard_ms / DAY_MS).toBeGreaterThanOrEqual(14)
  })
  it('every finish of the shelf has a care of its own kind, and none may be used hard before it may be touched', () => {
    for (const m of MATERIALS.filter(x => ['film', 'oil', 'wax'].includes(x.role))) {
      expect(Object.keys(CARE), m.slug).toContain(careKind(m))
      expect(useFrom(m, 0).hard_ms, m.slug).toBeGreaterThanOrEqual(useFrom(m, 0).touched_ms)
    }
  })
})
