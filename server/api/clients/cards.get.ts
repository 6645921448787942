import { clientCards } from '../../services/client/record'

export default route('GET /api/clients/cards', async ({ event }) => {
  const text = await clientCards()
  setHeader(event, 'content-type', 'text/vcard; charset=utf-8')
  setHeader(event, 'content-disposition', 'attachment; filename="clients.vcf"')
  return text
})
