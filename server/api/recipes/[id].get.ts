import { recipePage } from '../../services/recipes'

export default route('GET /api/recipes/:id', ({ id }) => recipePage(id()))
