import { changePhotograph } from '../../services/piece/photographs'

export default route('PATCH /api/photographs/:address', async ({ param, body, person }) =>
  changePhotograph(param('address'), body, person, await now()),
)
