import { defineStore } from 'pinia'
import type { Right, Role } from '#shared/rights'
import { LEFT_COOKIE } from '#shared/carried'
import { CARRIED_MS, dropCarried, know, known } from '~/offline/carried'

interface SessionData {
  person: { id: number; name: string; role: Role; mustChange: boolean; rights: Right[] } | null
  /** the tablet of the shop that this device is */
  tablet: { id: number; name: string; place: string | null; idleMin: number } | null
  /** who may step up to it */
  people: { id: number; name: string; login: string; pin: boolean; bench: boolean }[]
  shop: { name: string; currency: string; zone: string; length_unit: 'mm' | 'in'; temperature_unit: 'C' | 'F' } | null
  mode: string
}

interface CarriedSession {
  /** by the device's clock */
  at_ms: number
  session: Partial<SessionData> & { byName: boolean }
}
/** So long the server may take to say who is signed in, where the device knows it. */
const PATIENT_MS = 5000

export const useSession = defineStore('session', {
  state: (): SessionData & { known: boolean; byName: boolean; left: { personId: number; path: string } | null } => ({
    person: null,
    tablet: null,
    people: [],
    shop: null,
    mode: 'shop',
    known: false,
    /** by a name alone, without a line */
    byName: false,
    /** who stood here last, and on which page */
    left: null,
  }),
  actions: {
    async load() {
      const timeout = import.meta.client ? PATIENT_MS : undefined
      try {
        const got = await useRequestFetch()<SessionData>('/api/session', { timeout, retry: 0 })
        Object.assign(this, got, { known: true, byName: false })
        if (import.meta.client) this.carry()
      } catch (error) {
        const carried = import.meta.client && isAway(error) ? await known<CarriedSession>('session') : undefined
        if (!carried || Date.now() - carried.at_ms > CARRIED_MS) throw error
        useLine().broken()
        Object.assign(this, carried.session, { known: true })
      }
    },
    /** Keeps who stands here, for when there is no line. */
    carry() {
      const { person, byName, tablet, people, shop, mode } = this
      void know('session', { at_ms: Date.now(), session: { person, byName, tablet, people, shop, mode } })
    },
    /** Somebody steps up to a tablet while nobody can look at their PIN: they may work, and it says so. */
    stepUp(personId: number) {
      const who = this.people.find(p => p.id === personId)
      if (!who) return
      this.person = { id: who.id, name: who.name, role: 'finisher', mustChange: false, rights: ['work'] }
      this.byName = true
      this.carry()
    },
    /** Nobody stands here any more; where the server cannot hear it, this device says so when it next asks. */
    async leave(path: string) {
      if (this.person) this.left = { personId: this.person.id, path }
      try {
        await fetched('DELETE /api/session', {}, undefined, PATIENT_MS)
      } catch (error) {
        if (isAway(error)) document.cookie = `${LEFT_COOKIE}=1; path=/; max-age=604800; samesite=lax`
      }
      if (!this.tablet) void dropCarried(() => true)
      this.person = null
      this.byName = false
      this.carry()
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
