import { defineStore } from 'pinia'
import type { Role } from '#shared/api'

interface SessionData {
  person: { id: number; name: string; role: Role; mustChange: boolean } | null
  shop: { name: string; currency: string; zone: string; length_unit: 'mm' | 'in' } | null
  mode: string
}

export const useSession = defineStore('session', {
  state: (): SessionData & { known: boolean } => ({ person: null, shop: null, mode: 'shop', known: false }),
  actions: {
    async load() {
      const got = await useRequestFetch()<SessionData>('/api/session')
      Object.assign(this, got, { known: true })
    },
    may(...roles: Role[]) {
      return this.person !== null && roles.includes(this.person.role)
    },
  },
})
