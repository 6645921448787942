import { tellBalance } from '../../services/platform/instruments'

export default route('POST /api/balance', ({ body }) =>
  tellBalance(body.act === 'pour' ? `POUR ${body.g_s}` : body.act.toUpperCase()),
)
