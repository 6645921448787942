import { defineStore } from 'pinia'
import { canCarry, dropWaiting, keepWaiting, readWaiting, type Waiting } from '~/offline/carried'

const AGAIN_EVERY_MS = 15_000
/** So long pages take at most to read what went in. */
const READ_WITHIN_MS = 2000
/** Nobody who is signed in here may send it: it waits for its person. */
const NOT_YET = new Set([401, 403, 408, 429])

/** What comes back: held where it could not be entered, the number of a piece that was taken in. */
interface Done {
  held?: boolean
  says?: string
  id?: number
}
type Act = Omit<Waiting, 'no' | 'uuid' | 'personId' | 'person' | 'byName' | 'refused' | 'follows'>

/** What was done here and has not gone in: kept by the device, sent in order once there is a line. */
export const useWaiting = defineStore('waiting', () => {
  const acts = shallowRef<Waiting[]>([])
  /** this device keeps nothing: what is done without a line would be lost */
  const cannot = ref(false)
  const sending = ref(false)
  let underway: { no: number; ended: Promise<unknown> } | null = null
  /** what could be sent, were there a line and its person */
  const open = computed(() => acts.value.filter(a => a.refused === null))
  /** Did whoever stands here do it? A tablet of the shop sends for all, but a piece is taken in by one person. */
  function may({ key, personId }: Waiting): boolean {
    const { person, byName, tablet } = useSession()
    return (person?.id === personId && !byName) || (tablet !== null && key !== 'POST /api/pieces')
  }
  const sendable = computed(() => open.value.filter(may))
  /** what went in just now, and pages have not read yet */
  const entered = shallowRef<Waiting[]>([])
  /** what pages show as done */
  const told = computed(() => [...entered.value, ...open.value])

  async function recall() {
    try {
      acts.value = await readWaiting()
      cannot.value = !(await canCarry())
      // asked of the browser: not to throw it away when the device runs short of room
      void (navigator.storage as StorageManager | undefined)?.persist()
    } catch {
      cannot.value = true
    }
    if (acts.value.length) void sendAll()
  }

  const put = (act: Waiting) => {
    acts.value = [...acts.value.filter(a => a.no !== act.no), act].sort((a, b) => a.no! - b.no!)
  }
  /** Keeps an act until it can go in. @throws where the device keeps nothing, or has no room. */
  async function keep(act: Act, uuid: string): Promise<Waiting> {
    const { person, byName } = useSession()
    try {
      const kept = await keepWaiting({
        ...(JSON.parse(JSON.stringify({ ...act, picture: null })) as Act),
        ...{ uuid, picture: act.picture, personId: person!.id, person: person!.name, byName, refused: null },
        follows: act.stepId === null ? null : (open.value.findLast(a => a.stepId === act.stepId)?.uuid ?? null),
      })
      put(kept)
      cannot.value = false
      return kept
    } catch (error) {
      cannot.value = true
      throw error
    }
  }

  /** What must not be sent without it: later acts on the same step. */
  const behind = (act: Waiting) =>
    acts.value.filter(a => a.stepId === act.stepId && a.stepId !== null && a.no! > act.no!)
  /**
   * It did not happen; what was done after it on the same step goes with it. False where it has gone in by now: then it
   * is taken back at its step.
   */
  async function takeBack(act: Waiting): Promise<boolean> {
    // what is on its way is waited for
    if (underway && underway.no === act.no) await underway.ended
    if (!acts.value.some(a => a.no === act.no)) {
      useNotes().show(w('waiting.gone'), 'stop')
      return false
    }
    for (const a of [...behind(act), act]) {
      await dropWaiting(a.no!)
      acts.value = acts.value.filter(x => x.no !== a.no)
    }
    return true
  }

  /** A photograph that does not say itself when it was taken was taken when it was kept. */
  const takenOf = (act: Waiting) =>
    (act.asking.query as { taken?: string }).taken ?? new Date(act.happened_ms).toISOString()
  /** As the server takes it when it comes late. */
  function askingOf(act: Waiting): Record<string, unknown> {
    const { personId, byName, pieceId, says, follows } = act
    if (act.key === 'POST /api/pieces') return act.asking
    if (act.picture)
      return {
        ...act.asking,
        query: { ...(act.asking.query as object), by: personId, taken: takenOf(act) },
        body: pictureBody(act.picture),
      }
    const late = { personId, byName, follows, pieceId, says: says.slice(0, 300) }
    return { ...act.asking, body: { ...(act.asking.body as object), late } }
  }

  /** The photograph of a piece that was taken in here goes to it, now that it has its number. */
  async function pictureOf(act: Waiting, id: number) {
    const { no: _, ...rest } = act
    const asking = { id, query: {} }
    put(await keepWaiting({ ...rest, key: 'POST /api/pieces/:id/photographs', asking, uuid: crypto.randomUUID() }))
  }

  /** Sends the first that waits; false where no more can go now. */
  async function sendOne(act: Waiting): Promise<boolean> {
    try {
      const done: Done = await fetched(act.key as 'POST /api/bench', askingOf(act), act.uuid)
      if (act.key === 'POST /api/pieces' && act.picture) await pictureOf(act, done.id!)
      await dropWaiting(act.no!)
      useNotes().wentIn(act.uuid)
      // shown as done all the while
      if (!done.held) entered.value = [...entered.value, act]
      acts.value = acts.value.filter(a => a.no !== act.no)
      if (done.held) useNotes().show(done.says ?? '', 'stop')
      return true
    } catch (error) {
      // its own person may not do this any more: that is an answer
      const lost = problem(error).code === 'forbidden' && useSession().person?.id === act.personId
      if (isAway(error) || (NOT_YET.has(statusOf(error) ?? 0) && !lost)) return false
      put({ ...act, refused: problem(error).message })
      await keepWaiting({ ...act, refused: problem(error).message }).catch(() => undefined)
      return true
    }
  }

  async function sendInOrder() {
    let some = false
    for (;;) {
      const [next] = sendable.value
      if (!next) break
      const ended = sendOne(next)
      underway = { no: next.no!, ended }
      const went = await ended
      underway = null
      if (!went) break
      some = true
    }
    if (!some) return
    useEvents().again()
    setTimeout(() => (entered.value = []), READ_WITHIN_MS)
  }
  /** In order, one at a time, on one page of this device. */
  async function sendAll() {
    if (sending.value || !sendable.value.length) return
    sending.value = true
    try {
      const locks = navigator.locks as LockManager | undefined
      if (locks) await locks.request('hantverk-waiting', { ifAvailable: true }, lock => lock && sendInOrder())
      else await sendInOrder()
    } finally {
      sending.value = false
    }
  }

  if (import.meta.client) {
    watch([() => useLine().away, () => useSession().person?.id], ([away]) => {
      if (!away) void sendAll()
    })
    setInterval(() => void sendAll(), AGAIN_EVERY_MS)
  }
  return { acts, open, sendable, told, cannot, sending, recall, keep, takeBack, sendAll }
})
