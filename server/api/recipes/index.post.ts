import { saveRecipe } from '../../services/colour/recipes'

export default route('POST /api/recipes', async ({ body, person }) => saveRecipe(body, person, await now()))
