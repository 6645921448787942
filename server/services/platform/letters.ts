/** Letters to clients: a subject, plain words, and the same as HTML. */

export const LETTER_KINDS = ['ask', 'reply', 'remind'] as const
export type LetterKind = (typeof LETTER_KINDS)[number]
export interface LetterFacts {
  shop: string
  piece: string
  /** the client's name; '': not known */
  who: string
  says: string
  link: string | null
}
export interface Letter {
  subject: string
  text: string
  html: string
}
const SUBJECT: Record<LetterKind, (piece: string) => string> = {
  ask: piece => `${piece}: your answer is wanted`,
  reply: piece => `${piece}: an answer to your question`,
  remind: piece => `${piece}: we still wait for your answer`,
}
const LINK_SAYS: Record<LetterKind, string> = {
  ask: 'Everything is shown here, with price and date:',
  reply: 'Everything is shown here, with price and date:',
  remind: 'What we asked is shown here, with price and date:',
}
const REMIND = 'A short reminder: we asked you about this piece, and go on as soon as we have your word.'

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
const paragraph = (text: string) => `<p>${escaped(text).replaceAll('\n', '<br>')}</p>`
const STYLE = 'font-family:sans-serif;font-size:16px;line-height:1.5;max-width:36em;color:#1c211f'
const BUTTON = 'display:inline-block;padding:12px 20px;background:#1f6b63;color:#fff;text-decoration:none'

export function letterOf(kind: LetterKind, { shop, piece, who, says, link }: LetterFacts): Letter {
  const words = [who ? `Dear ${who},` : '', kind === 'remind' ? REMIND : '', says].filter(Boolean)
  const linked = link ? [`${LINK_SAYS[kind]}\n${link}`] : []
  const button = link
    ? `${paragraph(LINK_SAYS[kind])}<p><a href="${escaped(link)}" style="${BUTTON}">${escaped(piece)}</a></p>` +
      `<p style="font-size:13px">${escaped(link)}</p>`
    : ''
  return {
    subject: SUBJECT[kind](piece),
    text: [...words, ...linked, shop].join('\n\n'),
    html:
      `<!doctype html><html lang="en"><body style="${STYLE}">` +
      `${words.map(paragraph).join('')}${button}${paragraph(shop)}</body></html>`,
  }
}
