import { addAirByHand } from '../services/shop/roomAir'

export default route('POST /api/air', async ({ body, person }) => {
  const { temperature_C, rh_pct, roomId } = body
  await addAirByHand({ temperature_C, rh: rh_pct / 100 }, roomId, await now(), person)
  return { ok: true }
})
