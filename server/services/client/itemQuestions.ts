import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { ownerOf } from '../piece/findings'
import type { Person } from '../shop/person'
import { ask } from './ask'

/** Asks the client about one piece of hardware alone: replace, match or leave. */
export const askAboutItem = async (
  itemId: number,
  { words, days }: z.output<typeof s.askItem>,
  person: Person,
  at: Date,
) =>
  ask(
    await ownerOf('SELECT piece_id FROM item WHERE id = :id', itemId, 'item'),
    {
      ...{ words, days, surface: false, beside: [], found: false, work: [], bands: [], light: 'd65' },
      hardware: [{ itemId, prices: { replace: 0, match: 0, leave: 0 }, days: 0 }],
      ...{ dueOn: null, mostMinor: null, photographs: [] },
    },
    person,
    at,
  )
