import { listRecipes } from '../../services/colour/recipes'

export default route('GET /api/recipes', ({ query }) => listRecipes(query))
