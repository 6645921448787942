import { releaseMail } from '../../services/mail'

export default route('POST /api/mails/release', async ({ person }) => releaseMail(person, await now()))
