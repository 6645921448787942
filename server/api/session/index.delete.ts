export default route('DELETE /api/session', async ({ event }) => {
  await clearUserSession(event)
  return { ok: true }
})
