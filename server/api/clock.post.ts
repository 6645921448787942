export default route('POST /api/clock', async ({ body }) => {
  await setNow(new Date(body.at))
  return { ok: true }
})
