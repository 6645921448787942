import { colourPage } from '../services/colour/page'

export default route('GET /api/colour', ({ query }) => colourPage(query))
