import { pieceArchive } from '../../../services/archive/archive'

export default route('GET /api/pieces/:id/archive', async ({ event, id }) => {
  const archive = (await pieceArchive(id(), await now())).on('error', () => event.node.res.destroy())
  setHeader(event, 'content-type', 'application/zip')
  setHeader(event, 'content-disposition', `attachment; filename="piece-${id()}.zip"`)
  return sendStream(event, archive)
})
