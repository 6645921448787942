import { MOST_BYTES, readIn } from '../../../../services/examination/reports'
import { oneUpload } from '../../../../services/piece/photographs'

export default route('POST /api/pieces/:id/examinations/read', async ({ event, id, person }) => {
  const pieceId = id()
  return oneUpload(person.id, async () =>
    readIn(pieceId, (await readFile(event, MOST_BYTES, 'Choose a report file.')).toString('utf8'), person, await now()),
  )
})
