import { panelPage } from '../../../services/panel'

export default route('GET /api/pieces/:id/panel', ({ id }) => panelPage(id()))
