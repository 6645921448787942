import { readIn } from '../../../../services/reports'

export default route('POST /api/pieces/:id/examinations/read', async ({ event, id, person }) => {
  const file = (await readMultipartFormData(event))?.find(part => part.filename)
  if (!file) throw fail(422, 'invalid', 'Choose a report file.')
  return readIn(id(), file.data.toString('utf8'), person, await now())
})
