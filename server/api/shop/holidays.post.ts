import { addHolidays } from '../../services/shop/holidays'

export default route('POST /api/shop/holidays', async ({ body, person }) => addHolidays(body.text, person, await now()))
