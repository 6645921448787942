import { whileAlive } from '../../services/platform/events'
import { followBalance } from '../../services/platform/instruments'

/**
 * Server-sent events: each weight as the balance tells it, in grams; null when its line broke, and the end, so that
 * the browser comes again.
 */
export default route('GET /api/balance', ({ event, person }) => {
  if (event.context.head) return undefined
  const stream = createEventStream(event)
  const stop = followBalance(async (weight_g, steady, simulated) => {
    await stream.push(JSON.stringify({ weight_g, steady, simulated }))
    if (weight_g === null) await stream.close()
  })
  const forget = whileAlive({ session: person.session_id }, () => void stream.close())
  stream.onClosed(async () => {
    stop()
    forget()
    await stream.close()
  })
  return stream.send()
})
