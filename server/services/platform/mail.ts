import { randomBytes } from 'node:crypto'
import { Transform } from 'node:stream'
import nodemailer, { type SendMailOptions, type Transporter } from 'nodemailer'
import type { z } from 'zod'
import { withName } from '#core/approval'
import { type LetterKind, letterOf } from '#core/papers'
import type * as s from '#shared/schemas'
import { type Db, transaction } from '../../database/db'
import type { Person } from '../shop/person'
import { sha256 } from './digest'
import { keepLink, tokenOf } from '../client/links'
import { logShop, log, tell } from './log'

/**
 * Pauses before a letter is tried again, minutes: growing, for a day in all; then it could not be sent. Times here are
 * real, also in a demo.
 */
export const PAUSES_MIN = [1 / 6, 0.5, 2, 5, 15, 60, 180, 360, 720] as const
/** A letter that was taken up and never recorded after this was cut off while it was being sent. */
const CUT_OFF_S = 90
const SMTP_MS = { connectionTimeout: 5000, greetingTimeout: 5000, socketTimeout: 20_000, dnsTimeout: 5000 }
const NO_ADDRESS = 'shop@hantverk.invalid'

export interface NewMail {
  kind: LetterKind
  recipient: string
  pieceId: number
  approvalId: number | null
  says: string
}
export async function queueMail(tx: Db, m: NewMail) {
  await tx.run(
    `INSERT INTO mail (kind, recipient, piece_id, approval_id, says, seed, queued_at, try_after)
     VALUES (:kind, :recipient, :pieceId, :approvalId, :says, :seed, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3))`,
    { ...m, seed: randomBytes(16).toString('hex') },
  )
}

interface MailRow {
  id: number
  kind: LetterKind
  recipient: string
  says: string
  approval_id: number | null
  piece_id: number
  piece: string
  who: string
  seed: string
  /** of the first letter about its piece: all of them are one thread */
  first_seed: string
  tries: number
  shop: string
  mail_name: string
  mail_address: string
  /** the house's own words for its kind; null: the usual ones */
  own_subject: string | null
  own_words: string | null
}

/** Has it a link: to its question, or to the page of its piece? */
const opensPage = (m: Pick<MailRow, 'approval_id' | 'kind'>) =>
  m.approval_id !== null || m.kind === 'ready' || m.kind === 'renew'
/** Why no letter leaves now, in words; empty when they do. */
export function heldBecause(shop: { mail_held: 0 | 1; mail_address: string }, mode: string): string {
  if (shop.mail_held) return 'Letters are held since a backup was brought back; the owner lets them go under Shop.'
  return mode === 'shop' && !shop.mail_address ? "No letter leaves before the sender's address is set under Shop." : ''
}

/** Takes one letter that is due, and commits that it did: nothing is locked while it is being sent. */
const claim = (mode: string) =>
  transaction(async tx => {
    const shop = await tx.row<{ mail_held: 0 | 1; mail_address: string }>(
      'SELECT mail_held, mail_address FROM shop WHERE id = 1',
    )
    if (!shop || heldBecause(shop, mode)) return null
    const due = await tx.row<{ id: number }>(
      `SELECT id
          FROM mail
          WHERE state = 'waiting' AND try_after <= UTC_TIMESTAMP(3)
          ORDER BY try_after, id
          LIMIT 1
          FOR UPDATE SKIP LOCKED`,
    )
    if (!due) return null
    await tx.run(
      `UPDATE mail
          SET state = 'sending', claimed_at = UTC_TIMESTAMP(3), tries = tries + 1, row_version = row_version + 1
          WHERE id = :id`,
      due,
    )
    const mail = (await tx.row<MailRow>(
      `SELECT mail.id, mail.kind, mail.recipient, mail.says, mail.approval_id, mail.piece_id, mail.seed,
          mail.tries, piece.name AS piece, client.name AS who, shop.name AS shop, shop.mail_name, shop.mail_address,
          own.subject AS own_subject, own.words AS own_words,
          (SELECT seed FROM mail f WHERE f.piece_id = piece.id ORDER BY f.id LIMIT 1) AS first_seed
          FROM mail
          JOIN piece ON piece.id = mail.piece_id
          JOIN client ON client.id = piece.client_id
          JOIN shop ON shop.id = 1
          LEFT JOIN letter_words own ON own.kind = mail.kind
          WHERE mail.id = :id`,
      due,
    ))!
    if (opensPage(mail)) {
      const { piece_id: pieceId, approval_id: approvalId } = mail
      await keepLink(tx, tokenOf(mail.seed), { pieceId, approvalId, expires: null })
    }
    return mail
  })

/** Named by its seed, so that a letter that is sent again is the same letter. */
const messageId = (seed: string, address: string) => `<${sha256(seed).slice(0, 32)}@${address.split('@').at(-1)!}>`
function addressed(m: MailRow, publicBase: string): SendMailOptions {
  const link = opensPage(m) ? `${publicBase}/answer/${tokenOf(m.seed)}` : null
  const own = m.own_subject === null ? null : { subject: m.own_subject, words: m.own_words ?? '' }
  const address = m.mail_address || NO_ADDRESS
  const first = messageId(m.first_seed, address)
  const thread = m.first_seed === m.seed ? {} : { inReplyTo: first, references: [first] }
  return {
    ...{ from: { name: m.mail_name || m.shop, address }, to: m.recipient },
    ...{ messageId: messageId(m.seed, address), ...thread },
    ...letterOf(m.kind, { ...m, says: withName(m.says, m.who), link }, own),
  }
}

type Outcome = { state: 'sent' | 'perhaps' | 'failed' | 'waiting'; error: string; pause_s: number }
/**
 * What a failure means: refused for good, perhaps sent (the line broke after the whole letter was handed over), or to
 * be tried again.
 */
function outcomeOf(error: unknown, tries: number, handedOver: boolean): Outcome {
  const {
    message = '',
    responseCode = 0,
    code = '',
  } = error as { message?: string; responseCode?: number; code?: string }
  const says = message.slice(0, 300)
  if (handedOver && responseCode === 0) return { state: 'perhaps', error: says, pause_s: 0 }
  const pause = PAUSES_MIN[tries - 1]
  if (responseCode >= 500 || pause === undefined || code === 'EENVELOPE')
    return { state: 'failed', error: says, pause_s: 0 }
  return { state: 'waiting', error: says, pause_s: Math.round(pause * 60) }
}

async function sendOne(transport: Transporter, mail: MailRow, publicBase: string): Promise<Outcome> {
  let handedOver = false
  try {
    const letter: HandedOver = {
      ...addressed(mail, publicBase),
      handedOver: () => {
        handedOver = true
      },
    }
    await transport.sendMail(letter)
    return { state: 'sent', error: '', pause_s: 0 }
  } catch (error) {
    return outcomeOf(error, mail.tries, handedOver)
  }
}

/** Called when the last byte of a letter has gone to the mail server, whose word is then awaited. */
interface HandedOver extends SendMailOptions {
  handedOver: () => void
}
function openTransport(smtpUrl: string): Transporter {
  const transport = nodemailer.createTransport({ url: smtpUrl, ...SMTP_MS } as never) as Transporter
  transport.use('stream', (mail, done) => {
    const tell = (mail.data as Partial<HandedOver>).handedOver
    mail.message.transform(
      () =>
        new Transform({
          transform: (chunk, _encoding, next) => next(null, chunk),
          flush: next => {
            tell?.()
            next()
          },
        }),
    )
    done()
  })
  return transport
}

const record = (mail: MailRow, { state, error, pause_s }: Outcome, at: Date) =>
  transaction(async tx => {
    await tx.run(
      `UPDATE mail
          SET state = :state, last_error = :error, try_after = UTC_TIMESTAMP(3) + INTERVAL :pause_s SECOND,
            sent_at = IF(:state = 'sent', :at, sent_at), row_version = row_version + 1
          WHERE id = :id AND state = 'sending'`,
      { id: mail.id, state, error, pause_s, at },
    )
    if (state === 'failed')
      await log(tx, {
        pieceId: mail.piece_id,
        kind: 'mail',
        says: `Could not be sent to ${mail.recipient}: ${error}`,
        at,
        recordedAt: at,
        personId: null,
      })
    await tell(tx, 'piece', mail.piece_id, at)
  })

/**
 * Letters that were taken up and never recorded: this shop's server stopped in between. They are not sent again by
 * themselves.
 */
const markCutOff = (at: Date) =>
  transaction(async tx => {
    const cut = await tx.rows<{ id: number; piece_id: number }>(
      `SELECT id, piece_id
          FROM mail
          WHERE state = 'sending' AND claimed_at < UTC_TIMESTAMP(3) - INTERVAL ${CUT_OFF_S} SECOND
          FOR UPDATE SKIP LOCKED`,
    )
    for (const mail of cut) {
      await tx.run(
        `UPDATE mail
            SET state = 'perhaps', last_error = 'The server stopped while sending.', row_version = row_version + 1
            WHERE id = :id`,
        mail,
      )
      await tell(tx, 'piece', mail.piece_id, at)
    }
  })

/** Sends what is due, one at a time, until nothing is. Returns how many went out. */
export async function sendWaiting(at: Date): Promise<number> {
  const { smtpUrl, publicBase, mode } = useRuntimeConfig()
  await markCutOff(at)
  let transport: Transporter | undefined
  let sent = 0
  for (let mail = await claim(mode); mail; mail = await claim(mode)) {
    transport ??= openTransport(smtpUrl)
    const outcome = await sendOne(transport, mail, publicBase)
    await record(mail, outcome, at)
    if (outcome.state === 'sent') sent += 1
  }
  transport?.close()
  return sent
}

/**
 * Sends a letter again that could not be sent, or perhaps was; to another address where the one on record was wrong,
 * which becomes the client's.
 */
export const sendAgain = (id: number, input: z.infer<typeof s.mailAgain>, person: Person, at: Date) =>
  transaction(async tx => {
    const mail = await tx.row<{ state: string; piece_id: number; recipient: string; row_version: number }>(
      'SELECT state, piece_id, recipient, row_version FROM mail WHERE id = :id FOR UPDATE',
      { id },
    )
    if (!mail) throw notFound('letter')
    if (mail.row_version !== input.rowVersion) throw stale()
    if (!['failed', 'perhaps', 'back'].includes(mail.state))
      throw fail(409, 'nothing', 'This letter is on its way, or was sent.')
    const to = input.to ?? mail.recipient
    await tx.run(
      `UPDATE mail
          SET state = 'waiting', recipient = :to, tries = 0, last_error = '', try_after = UTC_TIMESTAMP(3),
            row_version = row_version + 1
          WHERE id = :id`,
      { id, to },
    )
    if (to !== mail.recipient)
      await tx.run('UPDATE client SET email = :to WHERE id = (SELECT client_id FROM piece WHERE id = :pieceId)', {
        to,
        pieceId: mail.piece_id,
      })
    await log(tx, {
      pieceId: mail.piece_id,
      kind: 'mail',
      says: `To be sent again to ${to}${to === mail.recipient ? '' : `, was ${mail.recipient}`}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'piece', mail.piece_id, at)
    return { ok: true }
  })

/** A letter that was sent came back: the mail server took it, and could not bring it to anybody. */
export const cameBack = (id: number, { rowVersion, says }: z.infer<typeof s.mailBack>, person: Person, at: Date) =>
  transaction(async tx => {
    const mail = await tx.row<{ state: string; piece_id: number; recipient: string; row_version: number }>(
      'SELECT state, piece_id, recipient, row_version FROM mail WHERE id = :id FOR UPDATE',
      { id },
    )
    if (!mail) throw notFound('letter')
    if (mail.row_version !== rowVersion) throw stale()
    if (mail.state !== 'sent') throw fail(409, 'nothing', 'Only a letter that was sent can come back.')
    await tx.run("UPDATE mail SET state = 'back', last_error = :says, row_version = row_version + 1 WHERE id = :id", {
      id,
      says,
    })
    await log(tx, {
      ...{ pieceId: mail.piece_id, kind: 'mail', says: `Came back from ${mail.recipient}${says ? `: ${says}` : ''}` },
      ...{ at, recordedAt: at, personId: person.id },
    })
    await tell(tx, 'piece', mail.piece_id, at)
    return { ok: true }
  })

/** After a backup was brought back, letters are held: they may have gone out already. The owner lets them go. */
export const releaseMail = (person: Person, at: Date) =>
  transaction(async tx => {
    const done = await tx.run('UPDATE shop SET mail_held = FALSE WHERE id = 1 AND mail_held')
    if (done.changed === 0) throw fail(409, 'nothing', 'No letters are held.')
    await logShop(tx, 'mail', 'Letters that were held are let go', at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
