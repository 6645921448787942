import type { Ref } from 'vue'

/** What this device carries of pieces' plans, to work on from there. */
async function carriedPlans(pieceIds: Iterable<number>) {
  const plans = new Map<number, { plan: PlanPage; shelf: Planning['context']['shelf']; name: string }>()
  for (const id of pieceIds) {
    const [plan, piece, planning] = await Promise.all([
      carriedOf('GET /api/pieces/:id/plan', { id }),
      carriedOf('GET /api/pieces/:id', { id }),
      carriedOf('GET /api/pieces/:id/planning', { id }),
    ])
    if ((plan?.answer as { ready?: boolean } | undefined)?.ready)
      plans.set(id, {
        plan: plan!.answer as PlanPage,
        shelf: (planning?.answer as Planning | undefined)?.context.shelf ?? {},
        name: (piece?.answer as PiecePage | undefined)?.piece.name ?? String(id),
      })
  }
  return plans
}

const MINUTE_MS = 60_000
/** A minute of the clock while something is judged on this device; zero while the server does. */
function useOwnMinute(judges: () => boolean) {
  const clock = useClock()
  return computed(() => (judges() ? Math.floor(clock.now / MINUTE_MS) : 0))
}

/** Now as it is shown: with what was done here and has not gone in. */
export function useBenchShown(bench: Readonly<Ref<BenchNow | null>>) {
  const waiting = useWaiting()
  const clock = useClock()
  const { at } = useClockWords()
  const shown = shallowRef(bench.value)
  const minute = useOwnMinute(() => waiting.told.length > 0)
  watch(
    [bench, () => waiting.told, minute],
    async ([now, acts]) => {
      if (!now || acts.length === 0) {
        shown.value = now
        return
      }
      const plans = await carriedPlans(new Set(acts.flatMap(a => a.pieceId ?? [])))
      const { benchWith } = await import('~/offline/benchWith')
      if (bench.value === now && waiting.told === acts) shown.value = benchWith(now, acts, plans, clock.now, at)
    },
    { immediate: true, flush: 'sync' },
  )
  return shown
}

/** A plan as it is shown: with what waits, and judged here while there is no line. */
export function usePlanShown(plan: Readonly<Ref<PlanPage | null>>, pieceId: () => number) {
  const waiting = useWaiting()
  const [line, clock, bench] = [useLine(), useClock(), inject(BENCH)!]
  const { at } = useClockWords()
  const shown = shallowRef(plan.value)
  const its = computed(() => waiting.told.filter(a => a.pieceId === pieceId()))
  const judges = () => line.away || its.value.length > 0
  const minute = useOwnMinute(judges)
  watch(
    [plan, its, minute],
    async ([now]) => {
      if (!now || !judges()) {
        shown.value = now
        return
      }
      const shelf = (await carriedPlans([pieceId()])).get(pieceId())?.shelf ?? {}
      const { planWith } = await import('~/offline/benchWith')
      const people = bench.value?.people ?? []
      if (plan.value === now) shown.value = planWith(now, its.value, clock.now, { shelf, people, clock: at })
    },
    { immediate: true, flush: 'sync' },
  )
  return shown
}

/** A moment as rules say it: the time today, with its day otherwise. */
function useClockWords() {
  const clock = useClock()
  const { day, time, dayTime } = useFormat()
  return { at: (ms: number) => (day(ms) === day(clock.now) ? time(ms) : dayTime(ms)) }
}
