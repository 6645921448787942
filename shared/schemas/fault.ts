import { z } from 'zod'
import { GRADES, MENDS, SIGN_SLUGS } from '../../core/diagnose'
import { id, maybeText, slugOf, text, version } from './fields'

const sign = slugOf(SIGN_SLUGS, 'Choose the sign.')
const mends = Object.keys(MENDS) as (keyof typeof MENDS)[]
/** Something went wrong: what is seen, and at which step; null: at none. */
export const seeFault = z.strictObject({ sign, stepId: id.nullable() })
/** yes, no, or null: nobody can say. `undo`: the answer was not meant. */
export const sayOfFault = z.strictObject({
  rowVersion: version,
  ask: text('The question', 30),
  yes: z.boolean().nullable(),
  undo: z.boolean().default(false),
})
export const mendFault = z.strictObject({ rowVersion: version, mend: slugOf(mends, 'Choose the mend.') })
export const foundCause = z.strictObject({
  rowVersion: version,
  cause: text('The cause', 30).nullable(),
  /** offer what is to be done another time in the next plan of this kind */
  keepNext: z.boolean().default(false),
  note: maybeText(300),
})
export const mindFault = z.strictObject({ faultId: id })
export const ownGrade = z.strictObject({
  sign,
  ask: text('The question', 30),
  cause: text('The cause', 30),
  grade: z.enum(GRADES),
})
