/** Doing what happened, or keeping it on this device until there is a line; `stores/waiting.ts` sends what is kept. */
import type { Waiting } from '~/offline/carried'

/** So long one act may take before it counts as waiting; its UUID keeps it from being done twice. */
const ACT_MS = 6000
export interface Doing {
  /** in words, for whoever looks what waits */
  says: string
  pieceId: number | null
  stepId: number | null
  happened_ms: number
  picture?: Blob | null
}
/** Nothing can be kept on this device. */
export class Unkept extends Error {}
/**
 * Sends what happened, or keeps it on this device until there is a line again.
 * @throws what the server refused it with, or Unkept where the device keeps nothing.
 */
export async function doOrKeep<K extends WriteKey>(
  key: K,
  asking: Record<string, unknown>,
  { picture = null, ...doing }: Doing,
): Promise<{ done: AnswerOf<K> } | { kept: Waiting }> {
  const waiting = useWaiting()
  const uuid = crypto.randomUUID()
  // what happened before goes in before
  const inOrder = useSession().byName || waiting.sendable.length > 0 || useLine().away
  try {
    const goesAlone = !picture || key === 'POST /api/pieces'
    const sent = goesAlone ? asking : { ...asking, body: pictureBody(picture) }
    if (!inOrder) return { done: await fetched(key, sent, uuid, goesAlone ? ACT_MS : undefined) }
  } catch (error) {
    if (!isAway(error)) throw error
  }
  try {
    const kept = await waiting.keep({ key, asking, picture, ...doing }, uuid)
    void waiting.sendAll()
    return { kept }
  } catch {
    throw new Unkept(w('waiting.cannot'))
  }
}
/** The same; null, with a line at the foot of the page, where it was neither taken nor kept. */
export async function sendOrKeep<K extends WriteKey>(key: K, asking: Record<string, unknown>, doing: Doing) {
  try {
    return await doOrKeep(key, asking, doing)
  } catch (error) {
    useNotes().show(error instanceof Unkept ? error.message : problem(error).message, 'stop')
    await sendAway(error)
    return null
  }
}
export function pictureBody(picture: Blob): FormData {
  const body = new FormData()
  body.append('picture', picture, 'picture.jpg')
  return body
}
