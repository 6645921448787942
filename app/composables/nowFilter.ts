/** Whose and which steps Now shows; kept by this device. */
export interface NowFilter {
  mine: boolean
  place: string | null
  piece: number | null
}

export function useNowFilter() {
  const bench = inject(BENCH)!
  const session = useSession()
  const filter = useKept<NowFilter>('now', { mine: false, place: null, piece: null })
  const set = (more: Partial<NowFilter>) => {
    filter.value = { ...filter.value, ...more }
  }
  const places = computed(() =>
    [...new Set(Object.values(bench.value?.pieces ?? {}).flatMap(p => p.place ?? []))].sort(),
  )
  /** Pieces on which this person has something in hand, or had the last thing; also what the timetable gives them. */
  const mine = computed(() => {
    const me = session.person?.id
    const now = bench.value
    return new Set([
      ...(now?.running ?? []).filter(r => r.spells.some(s => s.personId === me)).map(r => r.pieceId),
      ...Object.entries(now?.pieces ?? {}).flatMap(([id, p]) => (p.last_by === me ? [Number(id)] : [])),
    ])
  })
  const shows = (line: { pieceId: number; planned?: { personId: number | null } | null }): boolean => {
    const { mine: onlyMine, place, piece } = filter.value
    if (piece !== null) return line.pieceId === piece
    const planned = line.planned != null && line.planned.personId === session.person?.id
    if (onlyMine && !planned && !mine.value.has(line.pieceId)) return false
    return place === null || bench.value?.pieces[line.pieceId]?.place === place
  }
  // a piece that left the shop filters nothing any more
  watch(bench, now => {
    const { piece } = filter.value
    if (now && piece !== null && !now.pieces[piece]) set({ piece: null })
  })
  const some = computed(() => filter.value.mine || filter.value.place !== null || filter.value.piece !== null)
  return { filter, set, places, shows, some }
}
