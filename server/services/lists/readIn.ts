/** Lists read in from a file: shown first, line by line, then taken all together or not at all. */
import type { z } from 'zod'
import { type CardLine, readPeople } from '#core/formats'
import { type LotLine, readLots, type Unit } from '#core/store'
import type { Right } from '#shared/rights'
import type * as s from '#shared/schemas'
import { transaction } from '../../database/db'
import { refused } from '../colour/told'
import { placeId } from '../piece/items'
import { logShop, tell, type Topic } from '../platform/log'
import type { Person } from '../shop/person'
import { planProducts } from '../store/import'
import { planPots, planRecipes } from './mixtures'
import { eachOf, type Planned, type PlannedList, type Taking } from './planned'

interface ReadIn {
  right: Right
  topic: Topic
  /** "Products": in the log */
  called: string
  plan: (text: string, taking: Taking) => Promise<PlannedList>
}

interface KnownClient {
  id: number
  name: string
  email: string
  phone: string
}
async function planClients(text: string, { tx }: Taking): Promise<PlannedList> {
  const known = await tx.rows<KnownClient>(
    'SELECT id, name, email, phone FROM client WHERE merged_into IS NULL AND erased_at IS NULL ORDER BY id FOR UPDATE',
  )
  const same = (c: CardLine) => (k: KnownClient) =>
    k.name.toLowerCase() === c.name.toLowerCase() &&
    (!c.email || !k.email || k.email.toLowerCase() === c.email.toLowerCase())
  return eachOf(
    refused(() => readPeople(text)),
    card => {
      const was = known.find(same(card))
      if (!was)
        return {
          ...{ name: card.name, what: null },
          take: () => tx.run('INSERT INTO client (name, email, phone) VALUES (:name, :email, :phone)', { ...card }),
        }
      const [email, phone] = [card.email || was.email, card.phone || was.phone]
      return {
        name: card.name,
        what: [...(email === was.email ? [] : ['email']), ...(phone === was.phone ? [] : ['phone'])],
        take: () =>
          tx.run('UPDATE client SET email = :email, phone = :phone, row_version = row_version + 1 WHERE id = :id', {
            email,
            phone,
            id: was.id,
          }),
      }
    },
  )
}

interface KnownLot {
  id: number
  product_id: number
  code: string
  left_amount: number
  opened_on: string | null
  best_before: string | null
  place: string | null
  gone_at: Date | null
}
/** A new can is received; of one that is known what is left is counted. */
async function planLots(text: string, { tx, person, at }: Taking): Promise<PlannedList> {
  const products = await tx.rows<{ id: number; name: string; unit: Unit }>('SELECT id, name, unit FROM product')
  const lots = await tx.rows<KnownLot>(
    `SELECT lot.id, lot.product_id, lot.code, lot.left_amount, lot.opened_on, lot.best_before, place.code AS place,
        lot.gone_at
        FROM lot
        LEFT JOIN place ON place.id = lot.place_id
        ORDER BY lot.id
        FOR UPDATE`,
  )
  const move = (id: number, kind: 'received' | 'counted', amount: number) =>
    tx.run(
      `INSERT INTO lot_move (lot_id, kind, amount, word, person_id, at)
          VALUES (:id, :kind, :amount, 'read in', :by, :at)`,
      { id, kind, amount, by: person.id, at },
    )
  const placed = (code: string) => (code ? placeId(tx, { code, kind: 'shelf' }) : Promise.resolve(null))
  const planOf = (line: LotLine): Planned => {
    const product = products.find(p => p.name.toLowerCase() === line.product.toLowerCase())
    if (!product) throw new RangeError(`there is no product "${line.product.slice(0, 60)}"`)
    const was = lots.find(l => l.product_id === product.id && l.code.toLowerCase() === line.code.toLowerCase())
    const name = `${product.name}, ${line.code}`
    // a can that is no more is no news, here or from elsewhere
    if (line.gone && (!was || was.gone_at)) return { name, what: [], take: async () => {} }
    if (line.gone) throw new RangeError(`can "${line.code}" is in the store here; throw it away on its own page`)
    if (!was) {
      if (line.left === null) throw new RangeError('there is no amount')
      return {
        ...{ name, what: null },
        take: async () => {
          const { id } = await tx.run(
            `INSERT INTO lot (product_id, code, left_amount, holds, received_on, opened_on, best_before, place_id)
                VALUES (:productId, :code, :left, :left, :received, :opened, :bestBefore, :place)`,
            {
              ...{ productId: product.id, code: line.code, left: line.left },
              ...{ received: line.received || at.toISOString().slice(0, 10), opened: line.opened || null },
              ...{ bestBefore: line.bestBefore || null, place: await placed(line.place) },
            },
          )
          await move(id, 'received', line.left!)
        },
      }
    }
    if (was.gone_at) throw new RangeError(`can "${line.code}" was thrown away; take that back first`)
    const to = {
      left: line.left ?? was.left_amount,
      opened: line.opened || was.opened_on,
      bestBefore: line.bestBefore || was.best_before,
      place: line.place || was.place,
    }
    const what = [
      ...(to.left === was.left_amount ? [] : ['left']),
      ...(to.opened === was.opened_on ? [] : ['opened']),
      ...(to.bestBefore === was.best_before ? [] : ['bestBefore']),
      ...(to.place === was.place ? [] : ['place']),
    ]
    return {
      ...{ name, what },
      take: async () => {
        await tx.run(
          `UPDATE lot
              SET left_amount = :left, opened_on = :opened, best_before = :bestBefore, place_id = :place,
                row_version = row_version + 1
              WHERE id = :id`,
          { ...to, place: await placed(to.place ?? ''), id: was.id },
        )
        if (to.left !== was.left_amount) await move(was.id, 'counted', to.left - was.left_amount)
      },
    }
  }
  return eachOf(
    refused(() => readLots(text)),
    planOf,
  )
}

const READ_IN: Record<z.infer<typeof s.readIn>['list'], ReadIn> = {
  products: { right: 'store', topic: 'store', called: 'Products', plan: planProducts },
  lots: { right: 'store', topic: 'store', called: 'Cans', plan: planLots },
  clients: { right: 'take-in', topic: 'pieces', called: 'Clients', plan: planClients },
  recipes: { right: 'mix', topic: 'store', called: 'Recipes', plan: planRecipes },
  pots: { right: 'mix', topic: 'store', called: 'Pots', plan: planPots },
}

export function readIn({ list, text, take }: z.infer<typeof s.readIn>, person: Person, at: Date) {
  const { right, topic, called, plan } = READ_IN[list]
  if (!person.rights.has(right)) throw fail(403, 'forbidden', 'Your role does not change this list.')
  return transaction(async tx => {
    const { plans, wrong } = await plan(text, { tx, person, at })
    wrong.sort((a, b) => a.line - b.line)
    const fresh = plans.filter(p => p.what === null)
    const changed = plans.flatMap(p => (p.what && p.what.length > 0 ? { ...p, what: p.what } : []))
    if (take) {
      if (wrong[0])
        throw fail(422, 'invalid', `Line ${wrong[0].line}: ${wrong[0].says}. Nothing was taken; mend the file first.`)
      for (const p of [...fresh, ...changed]) await p.take()
      await logShop(
        tx,
        topic === 'store' ? 'store' : 'client',
        `${called} read in: ${fresh.length} new, ${changed.length} changed`,
        at,
        person.id,
      )
      await tell(tx, topic, null, at)
    }
    return {
      fresh: fresh.map(p => p.name),
      changed: changed.map(({ name, what }) => ({ name, what })),
      same: plans.length - fresh.length - changed.length,
      wrong,
    }
  })
}
