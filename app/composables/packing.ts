import type { Ref } from 'vue'
import type { RouteKey } from '#shared/api'
import { CARRIED_MS, dropCarried, know, known } from '~/offline/carried'

/** After a page is there, and after a piece changed, its readings are fetched this much later. */
const LATER_MS = 20_000
const QUIET_MS = 60_000
/** Between two of them, so that the shop notices nothing. */
const BETWEEN_MS = 150
/** What belongs to no piece is fetched anew after this. */
const SHOP_EVERY_MS = 10 * 60_000
const OF_PIECE = [
  'GET /api/pieces/:id',
  'GET /api/pieces/:id/plan',
  'GET /api/pieces/:id/planning',
  'GET /api/pieces/:id/examination',
] as const satisfies RouteKey[]
const OF_SHOP = [
  'GET /api/places',
  'GET /api/store',
  'GET /api/batches',
  'GET /api/recipes',
] as const satisfies RouteKey[]

/** As the list of pieces asks first. */
export const PIECES_IN_WORK = { query: { state: 'active' } } as const

interface Packed {
  build: string
  /** numbers of pieces as they were when they were fetched */
  pieces: Record<number, number>
}

/** While there is a line, this device fetches what it will need without one: all that is in work, one by one. */
export function usePacking(bench: Readonly<Ref<BenchNow | null>>) {
  const [session, line] = [useSession(), useLine()]
  const { buildId: build } = useRuntimeConfig().app
  let packed: Packed = { build: '', pieces: {} }
  let shop_ms = 0
  const changed = new Map<number, { no: number; at_ms: number }>()
  let busy = false

  /** On a tablet of the shop whoever steps up next may not see prices. */
  async function fetchOne(key: RouteKey, asking: Record<string, unknown>) {
    const path: string = pathOf(key, asking)
    const plain = session.tablet !== null
    const answer = await $fetch<unknown>(path, { retry: 0, headers: plain ? { 'x-without-prices': '1' } : {} })
    await carryRead(path, answer, plain ? false : undefined)
    await new Promise(resolve => setTimeout(resolve, BETWEEN_MS))
  }
  const may = () => session.person && !session.byName && !line.away && !document.hidden
  async function pass() {
    const now = bench.value
    if (!now || !may()) return
    if (!packed.build) packed = (await known<Packed>('packed')) ?? packed
    if (packed.build !== build) packed = { build, pieces: {} }
    for (const [id, { no }] of Object.entries(now.pieces)) {
      const known = changed.get(Number(id))
      if (known?.no !== no) changed.set(Number(id), { no, at_ms: known ? Date.now() : 0 })
    }
    // what closes, runs and may start first
    const next = [...now.windows, ...now.running, ...now.may].map(l => l.pieceId)
    for (const id of new Set([...next, ...changed.keys()])) {
      const { no, at_ms } = changed.get(id) ?? { no: 0, at_ms: 0 }
      if (packed.pieces[id] === no || Date.now() - at_ms < QUIET_MS || !now.pieces[id]) continue
      for (const key of OF_PIECE) if (may()) await fetchOne(key, { id })
      packed.pieces[id] = no
      await know('packed', packed)
    }
    if (Date.now() - shop_ms > SHOP_EVERY_MS) {
      shop_ms = Date.now()
      if (may()) await fetchOne('GET /api/pieces', PIECES_IN_WORK)
      for (const key of OF_SHOP) if (may()) await fetchOne(key, {})
      for (const { id } of now.pots) if (may()) await fetchOne('GET /api/batches/:id', { id })
      await dropCarried((_, read) => read.build !== build || useClock().now - read.at_ms > CARRIED_MS)
    }
  }
  useIntervalFn(async () => {
    if (busy) return
    busy = true
    // a reading that fails is fetched with the next pass
    await pass().catch(() => undefined)
    busy = false
  }, LATER_MS)
}
