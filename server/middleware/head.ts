/** HEAD is answered as GET; Node leaves the body out by itself. */
export default defineEventHandler(event => {
  if (event.method === 'HEAD' && event.path.startsWith('/api/')) {
    event.context.head = true
    event.node.req.method = 'GET'
    event._method = 'GET'
  }
})
