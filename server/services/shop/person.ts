import type { Role } from '#shared/api'

export interface Person {
  id: number
  name: string
  login: string
  role: Role
  active: 0 | 1
  must_change: 0 | 1
  row_version: number
  session_id: string
}

export const publicPerson = (p: Person) => ({
  id: p.id,
  name: p.name,
  login: p.login,
  role: p.role,
  active: Boolean(p.active),
  mustChange: Boolean(p.must_change),
  rowVersion: p.row_version,
})
