import { recipePage } from '../../services/colour/recipes'

export default route('GET /api/recipes/:id', ({ id }) => recipePage(id()))
