/** A band beside its target under each light, as SVG text: shown to the client and kept with the question. */
import { type Light, viewingOf } from './lights'
import { screenOf } from './screen'
import type { Spectrum } from './spectrum'

const NAMES: Record<Light, string> = {
  d65: 'daylight',
  d50: 'warm daylight',
  a: 'lamp',
  led: 'warm LED',
  f11: 'fluorescent',
}
const [WIDE, HIGH, MARGIN, TEXT] = [420, 64, 14, 20]

/**
 * Rows of two colours without a gap on neutral grey, one row for each light; the band alone where there is no target.
 */
export function bandSvg(band: Spectrum, target: Spectrum | null, lights: readonly Light[]): string {
  const w = WIDE + 2 * MARGIN
  const h = lights.length * (HIGH + TEXT) + 2 * MARGIN
  const sides = target ? [band, target] : [band]
  const rows = lights
    .map((light, i) => {
      const y = MARGIN + i * (HIGH + TEXT)
      const colours = sides
        .map(
          (s, k) =>
            `<rect x="${MARGIN + (k * WIDE) / sides.length}" y="${y}" width="${WIDE / sides.length}" ` +
            `height="${HIGH}" fill="${screenOf(s, viewingOf(light)).hex}"/>`,
        )
        .join('')
      return (
        `${colours}<text x="${MARGIN}" y="${y + HIGH + 15}">` +
        `${target ? `band and target, ${NAMES[light]}` : `band, ${NAMES[light]}`}</text>`
      )
    })
    .join('')
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${w} ${h}" role="img" ` +
    `aria-label="${target ? 'The band beside its target' : 'The band'}" style="max-width:480px" font-size="13" ` +
    `font-family="Schibsted Grotesk Variable, sans-serif" fill="#ffffff"><rect width="${w}" height="${h}" ` +
    `fill="#777777"/>${rows}</svg>`
  )
}
