/** The air that people breathe: limits, masks, flames, rags, waste. */
import { z } from 'zod'
import { RAG_WAYS } from '../../core/safety'
import { SOLVENT_SLUGS } from '../../core/vapour'
import { id, maybeText, slugOf, text } from './fields'

/** `mg_m3` null: the usual limit again. */
export const changeLimit = z
  .strictObject({
    slug: slugOf(SOLVENT_SLUGS, 'Choose a solvent.'),
    mg_m3: z
      .number({ error: 'Give the limit in mg/m³.' })
      .positive('A limit is above zero.')
      .max(10_000, 'No limit is that high.')
      .nullable(),
    source: maybeText(120),
  })
  .refine(l => l.mg_m3 === null || l.source !== '', { error: 'Say which rule sets it.', path: ['source'] })
export const changeVocYear = z.strictObject({
  kg: z.number({ error: 'Give kg in a year.' }).positive('Above zero, or none.').max(100_000, 'Too much.').nullable(),
})
/** `undo`: it was a mis-tap. */
export const lookedForFire = z.strictObject({ roomId: id, undo: z.boolean().default(false) })
/** `ask`: it was a mis-tap. */
export const sayRags = z.strictObject({
  stepIds: z.array(id).min(1, 'Choose rags.').max(200),
  how: z.enum([...RAG_WAYS, 'ask'], { error: 'Say where they lie.' }),
})
export const fitCartridge = z.strictObject({
  personId: id,
  lasts_h: z.number({ error: 'Give hours.' }).positive('Above zero hours.').max(200, 'No cartridge lasts so long.'),
  lasts_d: z.number({ error: 'Give days.' }).int('Whole days.').min(1, 'One day at least.').max(365, 'A year at most.'),
})
/** `litres` null: what is counted as waiting. */
export const handInWaste = z.strictObject({
  takenTo: text('Where it was taken', 120),
  receipt: maybeText(60),
  litres: z.number().min(0, 'No less than none.').max(10_000, 'Too much.').nullable().default(null),
  word: maybeText(300),
})
