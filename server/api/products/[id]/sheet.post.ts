import { addSheet, MOST_SHEET_BYTES } from '../../../services/store/sheets'

export default route('POST /api/products/:id/sheet', async ({ event, id, person }) =>
  addSheet(id(), await readFile(event, MOST_SHEET_BYTES, 'Choose a PDF file.'), person, await now()),
)
