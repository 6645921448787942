import { firstOwner } from '../services/people'

export default route('POST /api/first-owner', async ({ event, body }) => {
  const id = await firstOwner(body)
  await setUserSession(event, { user: { id, epoch: 1 } })
  return { ok: true }
})
