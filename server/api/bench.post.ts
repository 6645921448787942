import { actAtBench } from '../services/bench/acts'
import { whoActs } from '../services/bench/late'

export default route('POST /api/bench', async ({ event, body, person }) => {
  const who = await whoActs(event, person, body.late)
  return actAtBench(body, who.person, await now(), who.byName)
})
