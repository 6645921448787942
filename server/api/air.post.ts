import { addAir, BY_HAND } from '../services/shop/air'

export default route('POST /api/air', async ({ body, person }) => {
  await addAir({ temperature_C: body.temperature_C, rh: body.rh_pct / 100 }, BY_HAND, await now(), person)
  return { ok: true }
})
