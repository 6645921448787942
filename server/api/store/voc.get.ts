import { vocPage } from '../../services/store/voc'

export default route('GET /api/store/voc', () => vocPage())
