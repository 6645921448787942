import { describe, expect, it } from 'vitest'
import { usualContext } from '#core/context'
import { workOutPlan } from '#core/plan'
import { labelledCut, surfaceOf, surfaceSvg } from '#core/section'
import { built, choice, facts } from '../facts'

/** The cut as it stands on papers and in what a client is shown: one drawing, two ways out. */
const context = usualContext(facts())
const { steps } = workOutPlan(context, built(context, choice()))
const surface = surfaceOf(context, steps)!
const says = ({ name }: { name: string }) => name

describe('the cut with its labels', () => {
  it('has every shape and word in SVG that stands on paper', () => {
    const cut = labelledCut(surface, says)
    const svg = surfaceSvg(surface, says)
    for (const { text } of cut.shapes) if (text) expect(svg).toContain(text)
    expect(svg.match(/<(rect|path|polyline|text)/g)).toHaveLength(cut.shapes.length)
    expect(svg).toContain(`viewBox="0 0 ${cut.width} ${cut.height}"`)
    expect(svg).toContain(`aria-label="${cut.says}"`)
  })
  it('names equal neighbours once, and nothing that has no name', () => {
    const names = labelledCut(surface, says).shapes.flatMap(s => (s.tag === 'text' ? (s.text ?? []) : []))
    expect(names.filter(n => n === surface.films[0]!.name).length).toBeLessThanOrEqual(1)
    expect(labelledCut(surface, () => null).shapes.filter(s => s.tag === 'text')).toHaveLength(1)
  })
  it('says nothing of thickness: clients are shown no scale', () => {
    expect(labelledCut(surface, says).shapes.some(s => /µm/.test(s.text ?? ''))).toBe(false)
  })
  it('writes a name with signs of its own as text', () => {
    expect(surfaceSvg(surface, () => '<b>&"')).toContain('&lt;b&gt;&amp;&quot;')
  })
})
