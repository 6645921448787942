import type { H3Event } from 'h3'

/** A PDF, opened where it is asked for. */
export function sendPdf(event: H3Event, { name, data }: { name: string; data: Uint8Array }): Uint8Array {
  setHeader(event, 'content-type', 'application/pdf')
  setHeader(event, 'content-disposition', `inline; filename="${name}"`)
  return data
}
