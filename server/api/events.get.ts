import { eventsSince, lastEvent, listen, type ShopEvent, whileAlive } from '../services/platform/events'
import { currentTablet } from '../services/shop/sessions'

const BEAT_MS = 15_000

/** Server-sent events: what changed since Last-Event-ID, then what changes. Never the data itself. */
export default route('GET /api/events', async ({ event, person }) => {
  if (event.context.head) return undefined
  const owner = person ? { session: person.session_id } : { tablet: (await currentTablet(event))!.id }
  const asked = getHeader(event, 'last-event-id') ?? getQuery(event).after
  const newest = await lastEvent()
  // a number from before a backup was brought back may lie ahead of ours
  let sent = asked !== undefined && /^\d{1,15}$/.test(String(asked)) ? Math.min(Number(asked), newest) : newest
  const stream = createEventStream(event)
  const push = (events: ShopEvent[]) => {
    const fresh = events.filter(e => e.id > sent)
    if (fresh.length === 0) return
    sent = fresh.at(-1)!.id
    void stream.push(
      fresh.map(e => ({
        id: String(e.id),
        event: 'changed',
        data: JSON.stringify({ topic: e.topic, piece: e.piece_id }),
      })),
    )
  }
  const stop = await listen(push)
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), BEAT_MS)
  const forget = whileAlive(owner, () => void stream.close())
  stream.onClosed(async () => {
    stop()
    forget()
    clearInterval(beat)
    await stream.close()
  })
  void stream.push({ id: String(sent), event: 'hello', data: '' })
  void eventsSince(sent).then(push, () => {
    /* the next poll brings them */
  })
  return stream.send()
})
