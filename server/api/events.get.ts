import { eventsSince, lastEvent, listen, type ShopEvent } from '../services/events'

export default route('GET /api/events', async ({ event }) => {
  const stream = createEventStream(event)
  const push = (events: ShopEvent[]) => stream.push(events.map(e => ({ id: String(e.id), event: 'changed', data: JSON.stringify({ topic: e.topic, piece: e.piece_id }) })))
  const seen = Number(getHeader(event, 'last-event-id') ?? getQuery(event).after)
  const stop = listen(events => void push(events))
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), 15_000)
  stream.onClosed(async () => {
    stop()
    clearInterval(beat)
    await stream.close()
  })
  if (Number.isInteger(seen) && seen >= 0) void eventsSince(seen).then(push)
  else void lastEvent().then(id => stream.push({ id: String(id), event: 'hello', data: '' }))
  return stream.send()
})
