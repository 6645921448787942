import { z } from 'zod'
import { clientAnswers } from '../../services/client/answers'

const FORM_BYTES = 20_000
const FIELD = /^item-(\d{1,2})$/
const replyOf = (text: string) => (text === 'no' || text === 'talk' ? text : Number(text))
/** What the page says about a refusal. */
const SAID: Record<string, string> = { 'slow-down': 'slow-down', 'invalid': 'name' }
const saidOf = (status: number, code: string) => SAID[code] ?? (status >= 500 ? 'busy' : 'closed')

/** A client's form, from a page without a script: done like a call of the API, and then back to the page. */
export default defineEventHandler(async event => {
  const token = getRouterParam(event, 'token') ?? ''
  const back = (said: string) => sendRedirect(event, `/answer/${encodeURIComponent(token)}?said=${said}`, 303)
  const form = await readForm(event, FORM_BYTES).catch(() => new URLSearchParams())
  const replies = [...form].flatMap(([name, value]) => {
    const no = FIELD.exec(name)?.[1]
    return no === undefined || value === '' ? [] : [{ no: Number(no), reply: replyOf(value) }]
  })
  const asks = form.get('asks') ?? ''
  if (!asks && replies.length === 0) return back('choose')
  const body = {
    ...{ questionId: Number(form.get('question')) || null, replies, asks },
    ...{ name: form.get('name') ?? '', says: form.get('says') ?? '' },
  }
  const uuid = z.uuid().safeParse(form.get('uuid')).data ?? crypto.randomUUID()
  const sent = await sentByForm(event, 'POST /api/answer/:token', { uuid, body }, async given =>
    clientAnswers(token, given, await now()),
  )
  if ('problem' in sent) return back(saidOf(sent.status, sent.problem.code))
  if (!sent.answer.holds) return back('overtaken')
  return back(asks ? 'asked' : 'thanks')
})
