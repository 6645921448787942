import type { TemperatureUnit } from '#core/units'
import { IMPLIED, type Right, RIGHTS, type Role } from '#shared/rights'

export interface PersonRow {
  id: number
  name: string
  login: string
  role: Role
  active: 0 | 1
  must_change: 0 | 1
  row_version: number
}

/** Somebody who is signed in: where, since when the password is proved, and what they may do. */
export interface Person extends PersonRow {
  session_id: string
  tablet_id: number | null
  /** when the password was last given in this session */
  proved_at: Date | null
  rights: ReadonlySet<Right>
  shop: ShopWays
}

/** How the shop writes money and temperatures. */
export interface ShopWays {
  currency: string
  temperature: TemperatureUnit
}

export const publicPerson = (p: PersonRow) => ({
  id: p.id,
  name: p.name,
  login: p.login,
  role: p.role,
  active: Boolean(p.active),
  mustChange: Boolean(p.must_change),
  rowVersion: p.row_version,
})

/** The rights of a role from its rows, "work,examine"; the owner has all. */
export const rightsOf = (role: Role, names: string | null): ReadonlySet<Right> => {
  const given = new Set((names ?? '').split(','))
  const has = (right: Right) => given.has(right) || (IMPLIED[right] ?? []).some(by => given.has(by))
  return new Set(RIGHTS.filter(right => role === 'owner' || has(right)))
}

/** Works at the bench: an active person whose role may, as a condition over `person` by its alias. */
export const atTheBench = (p: string) =>
  `${p}.active AND (${p}.role = 'owner' OR ${p}.role IN (SELECT role FROM role_right WHERE name = 'work'))`

/** What somebody may overrule who may work on `what`. */
export const overruling = ({ rights }: Person, what: Right) => ({
  stops: rights.has('overrule'),
  warnings: rights.has(what),
})

/** How long a password that was given opens what wants one. */
const PROOF_MIN = 10
export const isProved = ({ proved_at }: Pick<Person, 'proved_at'>): boolean =>
  proved_at !== null && Date.now() - proved_at.getTime() < PROOF_MIN * 60_000

/** @throws Fail 403 'prove' when the password was not given within the last minutes. */
export function checkProved(person: Pick<Person, 'proved_at'>): void {
  if (!isProved(person)) throw fail(403, 'prove', 'Give your password first; then repeat.')
}
