import { listRecipes } from '../../services/recipes'

export default route('GET /api/recipes', ({ query }) => listRecipes(query))
