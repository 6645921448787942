const YEAR_S = 365 * 24 * 3600
/**
 * What this device keeps of how its pages look: in a cookie, so that the server draws them so from the first. It is
 * set as a whole; until then there is no cookie.
 */
export function useKept<T extends object>(name: string, usual: T) {
  const kept = useCookie<unknown>(`hantverk-${name}`, { maxAge: YEAR_S, sameSite: 'lax' })
  // whatever else stands there is not ours
  const isOurs = (value: unknown): value is T =>
    typeof value === 'object' && value !== null && Object.keys(usual).every(key => key in value)
  return computed<T>({
    get: () => (isOurs(kept.value) ? kept.value : usual),
    set: value => {
      kept.value = value
    },
  })
}
