import { followBalance } from '../../services/instruments'

/** Server-sent events: each weight as the balance tells it, in grams; null when its line broke. */
export default route('GET /api/balance', ({ event }) => {
  const stream = createEventStream(event)
  const stop = followBalance((weight_g, steady, simulated) => void stream.push(JSON.stringify({ weight_g, steady, simulated })))
  stream.onClosed(async () => {
    stop()
    await stream.close()
  })
  return stream.send()
})
