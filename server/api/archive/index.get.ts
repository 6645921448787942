import { shopArchive } from '../../services/archive/archive'

export default route('GET /api/archive', async ({ event }) => {
  setHeader(event, 'content-type', 'application/zip')
  setHeader(event, 'content-disposition', 'attachment; filename="shop.zip"')
  // half of it must not pass for the whole
  const archive = (await shopArchive(await now())).on('error', () => event.node.res.destroy())
  return sendStream(event, archive)
})
