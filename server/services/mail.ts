import nodemailer from 'nodemailer'
import { transaction } from '../database/db'
import { freshToken } from './approvals'
import { tell } from './record'

const RETRY_S = 10

interface MailRow { id: number, kind: 'ask' | 'reply', recipient: string, says: string, approval_id: number | null, piece: string, shop: string, tries: number }

function letter(m: MailRow, link: string | null) {
  const subject = m.kind === 'ask' ? `${m.piece}: your answer is wanted` : `${m.piece}: an answer to your question`
  const text = [m.says, link ? `Everything is shown here, with price and date:\n${link}` : '', m.shop].filter(Boolean).join('\n\n')
  return { subject, text }
}

/** Sends what waits, one at a time; when the mail server is gone the mail stays and is tried again. Returns how many went out. */
export async function sendWaiting(at: Date): Promise<number> {
  const { smtpUrl, publicBase } = useRuntimeConfig()
  const transport = nodemailer.createTransport({ url: smtpUrl, connectionTimeout: 3000, greetingTimeout: 3000, socketTimeout: 5000 } as never)
  let sent = 0
  for (;;) {
    const more = await transaction(async (tx) => {
      const mail = await tx.row<MailRow>(
        `SELECT mail.id, mail.kind, mail.recipient, mail.says, mail.approval_id, mail.tries, piece.name AS piece, shop.name AS shop FROM mail JOIN piece ON piece.id = mail.piece_id JOIN shop ON shop.id = 1
          WHERE mail.state = 'waiting' AND mail.try_after <= :at ORDER BY mail.id LIMIT 1 FOR UPDATE SKIP LOCKED`, { at })
      if (!mail) return false
      const link = mail.approval_id ? `${publicBase}/answer/${await freshToken(tx, mail.approval_id)}` : null
      const state = { id: mail.id, at, error: '', after: new Date(at.getTime() + RETRY_S * 1000) }
      try {
        await transport.sendMail({ from: 'shop@hantverk.invalid', to: mail.recipient, ...letter(mail, link) })
        await tx.run('UPDATE mail SET state = \'sent\', sent_at = :at, says = \'\', tries = tries + 1, last_error = \'\' WHERE id = :id', state)
        sent += 1
      }
      catch (error) {
        await tx.run('UPDATE mail SET tries = tries + 1, try_after = :after, last_error = :error WHERE id = :id', { ...state, error: String((error as Error).message).slice(0, 300) })
      }
      await tell(tx, 'piece', null, at)
      return true
    })
    if (!more) return sent
  }
}
