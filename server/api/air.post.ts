import { addAir } from '../services/shop/air'

export default route('POST /api/air', async ({ body, person }) => {
  await addAir({ temperature_C: body.temperature_C, rh: body.rh_pct / 100 }, 'by hand', await now(), person)
  return { ok: true }
})
