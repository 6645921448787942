import { defineStore } from 'pinia'
import type { Right, Role } from '#shared/rights'

interface SessionData {
  person: { id: number; name: string; role: Role; mustChange: boolean; rights: Right[] } | null
  /** the tablet of the shop that this device is */
  tablet: { id: number; name: string; place: string | null; idleMin: number } | null
  /** who may step up to it */
  people: { id: number; name: string; login: string; pin: boolean; bench: boolean }[]
  shop: { name: string; currency: string; zone: string; length_unit: 'mm' | 'in'; temperature_unit: 'C' | 'F' } | null
  mode: string
}

export const useSession = defineStore('session', {
  state: (): SessionData & { known: boolean; left: { personId: number; path: string } | null } => ({
    person: null,
    tablet: null,
    people: [],
    shop: null,
    mode: 'shop',
    known: false,
    /** who stood here last, and on which page */
    left: null,
  }),
  actions: {
    async load() {
      const got = await useRequestFetch()<SessionData>('/api/session')
      Object.assign(this, got, { known: true })
    },
    /** Where whoever came in goes on: on their own page, never on somebody else's. */
    whereLeft() {
      const to = this.left?.personId === this.person?.id ? this.left!.path : '/'
      this.left = null
      return to
    },
    may(right: Right) {
      return this.person?.rights.includes(right) ?? false
    },
  },
})
