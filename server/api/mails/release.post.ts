import { releaseMail } from '../../services/platform/mail'

export default route('POST /api/mails/release', async ({ person }) => releaseMail(person, await now()))
