import { addPhotograph, MOST_BYTES, oneUpload } from '../../../services/piece/photographs'

export default route('POST /api/pieces/:id/photographs', async ({ event, id, person, query }) => {
  const pieceId = id()
  return oneUpload(person.id, async () =>
    addPhotograph(pieceId, await readFile(event, MOST_BYTES, 'Choose a picture.'), person, await now(), query.step),
  )
})
