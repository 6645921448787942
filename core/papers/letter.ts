/** Letters to clients: a subject, plain words, and the same as HTML; in the house's own words where it has some. */

export const LETTER_KINDS = ['ask', 'reply', 'remind', 'ready', 'renew'] as const
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
/** The house's words for a kind of letter; names in braces are filled in. */
export interface LetterWords {
  subject: string
  words: string
}
export const FILLS = ['piece', 'client', 'shop'] as const
export const USUAL_WORDS: Record<LetterKind, LetterWords> = {
  ask: { subject: '{piece}: your answer is wanted', words: '' },
  reply: { subject: '{piece}: an answer to your question', words: '' },
  remind: {
    subject: '{piece}: we still wait for your answer',
    words: 'A short reminder: we asked you about this piece, and go on as soon as we have your word.',
  },
  ready: {
    subject: '{piece}: it is ready',
    words: 'Your piece is ready to be fetched. Please tell us when you come.',
  },
  renew: {
    subject: '{piece}: time to renew its finish',
    words:
      'By your leave we remind you: the finish of your piece wants renewing about now. How you do it yourself stands ' +
      'on its page; or bring it to us.',
  },
}
const LINK_SAYS: Record<LetterKind, string> = {
  ask: 'Everything is shown here, with price and date:',
  reply: 'Everything is shown here, with price and date:',
  remind: 'What we asked is shown here, with price and date:',
  ready: 'Where it is, and how to care for it, is shown here:',
  renew: 'How to care for it is shown here:',
}

/** Names in braces that no letter fills in; none: the words can be sent. */
export const unknownFills = (text: string): string[] =>
  [...text.matchAll(/\{([^{}]*)\}/g)].flatMap(m => ((FILLS as readonly string[]).includes(m[1]!) ? [] : [m[0]]))
const filled = (text: string, { piece, who, shop }: LetterFacts) => {
  const by: Record<string, string> = { piece, client: who || 'client', shop }
  return text.replace(/\{(piece|client|shop)\}/g, (_, name: string) => by[name]!)
}
const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
const paragraph = (text: string) => `<p>${escaped(text).replaceAll('\n', '<br>')}</p>`
const STYLE = 'font-family:sans-serif;font-size:16px;line-height:1.5;max-width:36em;color:#1c211f'
const BUTTON = 'display:inline-block;padding:12px 20px;background:#1f6b63;color:#fff;text-decoration:none'

/** @param house the house's own words; null: the usual ones */
export function letterOf(kind: LetterKind, facts: LetterFacts, house: LetterWords | null): Letter {
  const { shop, piece, who, says, link } = facts
  const own = house ?? USUAL_WORDS[kind]
  const words = [who ? `Dear ${who},` : '', filled(own.words, facts), says].filter(Boolean)
  const linked = link ? [`${LINK_SAYS[kind]}\n${link}`] : []
  const button = link
    ? `${paragraph(LINK_SAYS[kind])}<p><a href="${escaped(link)}" style="${BUTTON}">${escaped(piece)}</a></p>` +
      `<p style="font-size:13px">${escaped(link)}</p>`
    : ''
  return {
    // a subject is one line, whatever a name holds
    subject: filled(own.subject, facts).replace(/\s+/g, ' ').trim(),
    text: [...words, ...linked, shop].join('\n\n'),
    html:
      `<!doctype html><html lang="en"><body style="${STYLE}">` +
      `${words.map(paragraph).join('')}${button}${paragraph(shop)}</body></html>`,
  }
}
