/** What was measured at the end of a step goes where it is looked for. */
import type { Measured } from '#core/acts'
import { readAir } from '../shop/air'
import type { Act } from './act'

const THIN_MM = 10
/** Moisture becomes a reading of each face, a veneer's thickness its own. */
export async function keepMeasured({ tx, file, step, at, person }: Act, measured: Measured): Promise<void> {
  const faces = file.faces.filter(f => step.faces.includes(f.id))
  if (measured.moisture_pct !== undefined) {
    const { air } = await readAir(at, tx)
    for (const { id } of faces)
      await tx.run(
        `INSERT INTO moisture_reading (face_id, reading_pct, thickness_mm, air_temperature_C, air_rh, person_id, at)
            VALUES (:id, :reading, :thickness, :t, :rh, :personId, :at)`,
        {
          id,
          reading: measured.moisture_pct,
          thickness: USUAL_BOARD_MM,
          t: air?.temperature_C ?? null,
          rh: air?.rh ?? null,
          personId: person.id,
          at,
        },
      )
  }
  const { thickness_mm } = measured
  if (thickness_mm === undefined || thickness_mm > THIN_MM) return
  for (const { id } of faces.filter(f => f.substrate === 'veneer'))
    await tx.run(
      'UPDATE face SET veneer_mm = :mm, veneer_typed = :typed, row_version = row_version + 1 WHERE id = :id',
      {
        id,
        mm: thickness_mm,
        typed: `${thickness_mm} mm`,
      },
    )
}
/** A board where nobody said how thick it is, mm (shop default). */
const USUAL_BOARD_MM = 20
