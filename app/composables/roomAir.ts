import type { Air } from '#core/air'

interface Rain {
  next: { from_ms: number; to_ms: number } | null
  simulated: boolean
}
/** The air of a room with air of its own in words, outdoors with the next rain. */
export function useRoomAir() {
  const { degrees, time, dayTime } = useFormat()
  const clock = useClock()
  const session = useSession()
  const rainOf = ({ next }: Rain): string => {
    if (!next) return w('rooms.rain.none')
    return next.from_ms <= clock.now
      ? w('rooms.rain.until', { at: time(next.to_ms) })
      : w('rooms.rain.from', { at: dayTime(next.from_ms) })
  }
  const airOf = (air: Air | null, rain: Rain | null): string => {
    if (!air) return w(rain ? 'rooms.rain.unknown' : 'rooms.airUnknown')
    const measured = w('air.is', { t: degrees(air.temperature_C), rh: Math.round(air.rh * 100) })
    if (!rain) return measured
    const madeUp = rain.simulated && session.mode === 'shop' ? ` (${w('air.simulated')})` : ''
    return `${measured}, ${rainOf(rain)}${madeUp}`
  }
  return { airOf }
}
