import { vocPage } from '../../services/breath/voc'

export default route('GET /api/store/voc', () => vocPage())
