import { panelPage } from '../../../services/colour/panel'

export default route('GET /api/pieces/:id/panel', ({ id }) => panelPage(id()))
