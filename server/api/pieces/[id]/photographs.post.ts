import { addPhotograph } from '../../../services/photographs'

export default route('POST /api/pieces/:id/photographs', async ({ event, id, person }) => {
  const file = (await readMultipartFormData(event))?.find(part => part.filename)
  if (!file) throw fail(422, 'invalid', 'Choose a picture.')
  return addPhotograph(id(), file.data, person, await now())
})
