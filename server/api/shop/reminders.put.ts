import { changeReminders } from '../../services/client/houseRules'

export default route('PUT /api/shop/reminders', async ({ body, person }) => changeReminders(body, person, await now()))
