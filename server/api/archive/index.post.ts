import { takeArchive } from '../../services/archive/archive'

export default route('POST /api/archive', async ({ event, person }) =>
  withUpload(event, path => takeArchive(path, person, now)),
)
