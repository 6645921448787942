const YEAR_S = 365 * 24 * 3600
/** What this device keeps of how its pages look: in a cookie, so that the server draws them so from the first. */
export function useKept<T extends object>(name: string, usual: T) {
  const kept = useCookie<T>(`hantverk-${name}`, { default: () => usual, maxAge: YEAR_S, sameSite: 'lax' })
  const whole = (value: unknown) =>
    typeof value === 'object' && value !== null && Object.keys(usual).every(k => k in value)
  // whatever else stands there is not ours
  if (!whole(kept.value)) kept.value = usual
  return kept
}
