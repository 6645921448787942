import { endSession } from '../../services/sessions'

export default route('DELETE /api/session', async ({ event, person }) => {
  await endSession(event, person)
  return { ok: true }
})
