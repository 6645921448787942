import { colourPage } from '../services/colour'

export default route('GET /api/colour', ({ query }) => colourPage(query))
