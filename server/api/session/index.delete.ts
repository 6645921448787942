import { endSession } from '../../services/shop/sessions'

export default route('DELETE /api/session', async ({ event, person }) => {
  await endSession(event, person)
  return { ok: true }
})
