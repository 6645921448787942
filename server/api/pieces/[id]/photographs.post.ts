import { whoActs } from '../../../services/bench/late'
import { addPhotograph, MOST_BYTES, oneUpload } from '../../../services/piece/photographs'

export default route('POST /api/pieces/:id/photographs', async ({ event, id, person, query }) => {
  const { by, step, taken } = query
  const who = await whoActs(event, person, by ? { personId: by, byName: false } : undefined)
  const pieceId = id()
  return oneUpload(who.person.id, async () => {
    const data = await readFile(event, MOST_BYTES, 'Choose a picture.')
    return addPhotograph(pieceId, data, who.person, await now(), { step, taken: taken ? new Date(taken) : null })
  })
})
