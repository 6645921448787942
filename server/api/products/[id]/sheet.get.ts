import { sheetOf } from '../../../services/store/sheets'

export default route('GET /api/products/:id/sheet', async ({ event, id }) => sendPdf(event, await sheetOf(id())))
