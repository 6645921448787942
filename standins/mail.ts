/**
 * A small real SMTP server with a page to read its mail. Simulated: nothing leaves this machine. Usage: mail.ts
 * SMTP_PORT PAGE_PORT [LETTERS], a file in which letters outlive a restart
 */
import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'

interface Mail {
  id: number
  to: string
  subject: string
  text: string
  html: string
  /** the letter that it follows; '': it begins a thread */
  inReplyTo: string
  at: string
}

const [smtpPort, pagePort] = process.argv.slice(2, 4).map(Number)
const letters = process.argv[4]
const KEEP = 500
/** Newest first. A line that was cut off is left out. */
const mails: Mail[] =
  letters && existsSync(letters) ? readFileSync(letters, 'utf8').split('\n').flatMap(whole).slice(-KEEP).reverse() : []
function whole(line: string): Mail[] {
  try {
    return [JSON.parse(line) as Mail]
  } catch {
    return []
  }
}
const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
const linked = (text: string) => escape(text).replace(/https?:\/\/[^\s<]+/g, url => `<a href="${url}">${url}</a>`)

new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  logger: false,
  onData(stream, _session, done) {
    simpleParser(stream)
      .then(mail => {
        const to = Array.isArray(mail.to) ? mail.to.map(t => t.text).join(', ') : (mail.to?.text ?? '')
        const letter: Mail = {
          id: (mails[0]?.id ?? 0) + 1,
          to,
          subject: mail.subject ?? '',
          text: mail.text ?? '',
          html: mail.html || '',
          inReplyTo: mail.inReplyTo ?? '',
          at: new Date().toISOString(),
        }
        mails.unshift(letter)
        mails.length = Math.min(mails.length, KEEP)
        if (letters) appendFileSync(letters, `${JSON.stringify(letter)}\n`, { mode: 0o600 })
        done()
      })
      .catch(done)
  },
}).listen(smtpPort, '127.0.0.1')

createServer((request, response) => {
  if (request.url === '/mails') {
    response.setHeader('content-type', 'application/json')
    response.end(JSON.stringify(mails))
    return
  }
  response.setHeader('content-type', 'text/html; charset=utf-8')
  response.end(`<!doctype html><html lang="en"><title>Simulated mail</title>
<meta name="viewport" content="width=device-width">
<style>
body{font:16px/1.5 sans-serif;max-width:44rem;margin:2rem auto;padding:0 1rem;color:#1c211f;background:#eeeeec}
article{border-top:1px solid #aaa;padding:1rem 0}
pre{white-space:pre-wrap;font:inherit}
iframe{width:100%;height:16rem;border:1px solid #aaa;background:#fff}
</style>
<h1>Simulated mail</h1><p>What the shop would have sent. Nothing leaves this machine.</p>${
    mails
      .map(
        m =>
          `<article><strong>${escape(m.subject)}</strong><br>to ${escape(m.to)}, ${m.at}` +
          `${m.inReplyTo ? ', follows an earlier letter' : ''}<pre>${linked(m.text)}</pre>` +
          `${m.html ? `<p>The same as HTML:</p><iframe sandbox srcdoc="${escape(m.html)}"></iframe>` : ''}</article>`,
      )
      .join('') || '<p>No mail yet.</p>'
  }</html>`)
}).listen(pagePort, '127.0.0.1')
