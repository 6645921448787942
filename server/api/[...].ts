/** Anything else under /api: the same shape of error. */
export default defineEventHandler(event => {
  setResponseHeader(event, 'cache-control', 'no-store')
  setResponseStatus(event, 404)
  return { code: 'not-found', message: 'There is no such address.' }
})
