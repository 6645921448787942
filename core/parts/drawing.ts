/** The holes of a fitting drawn to scale, as SVG text: shown to the client and kept with the question. */
import type { Holes } from './index'

const PX_PER_MM = 3
const MARGIN = 18

/** Holes and plate at 3 px to the mm, with the distance between the outer centres written beneath. */
export function holesSvg(holes: Holes): string {
  const span = holes.centres_mm.at(-1)! - holes.centres_mm[0]!
  const wide = Math.max(span + holes.diameter_mm, holes.plate_w_mm ?? 0)
  const high = Math.max(holes.diameter_mm, holes.plate_h_mm ?? 0)
  const w = wide * PX_PER_MM + 2 * MARGIN
  const h = high * PX_PER_MM + 2 * MARGIN + 18
  const cy = MARGIN + (high * PX_PER_MM) / 2
  const x0 = w / 2 - (span * PX_PER_MM) / 2
  const plate =
    holes.plate_w_mm && holes.plate_h_mm
      ? `<rect x="${(w / 2 - (holes.plate_w_mm * PX_PER_MM) / 2).toFixed(1)}" ` +
        `y="${(cy - (holes.plate_h_mm * PX_PER_MM) / 2).toFixed(1)}" width="${holes.plate_w_mm * PX_PER_MM}" ` +
        `height="${holes.plate_h_mm * PX_PER_MM}" fill="none" stroke="#505854" stroke-dasharray="4 3"/>`
      : ''
  const dots = holes.centres_mm
    .map(
      c =>
        `<circle cx="${(x0 + (c - holes.centres_mm[0]!) * PX_PER_MM).toFixed(1)}" cy="${cy.toFixed(1)}" ` +
        `r="${((holes.diameter_mm / 2) * PX_PER_MM).toFixed(1)}" fill="#1c211f"/>`,
    )
    .join('')
  const says = span > 0 ? `${span} mm between centres, holes ${holes.diameter_mm} mm` : `hole ${holes.diameter_mm} mm`
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${Math.max(w, 220).toFixed(0)} ${h.toFixed(0)}" ` +
    `role="img" aria-label="${says}" style="max-width:420px">${plate}${dots}<text x="4" ` +
    `y="${(h - 6).toFixed(0)}" font-size="13" font-family="Schibsted Grotesk Variable, sans-serif" ` +
    `fill="#1c211f">${says}</text></svg>`
  )
}
