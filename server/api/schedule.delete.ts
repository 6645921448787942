import { stopSearch } from '../services/schedule/solve'

export default route('DELETE /api/schedule', () => {
  stopSearch()
  return { ok: true }
})
