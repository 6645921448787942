/** Pages carry what only their reader may see: no cache keeps them. They travel in gzip. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', async (response, { event }) => {
    response.headers = { ...response.headers, 'cache-control': 'no-store' }
    const { body } = response
    if (typeof body === 'string') response.body = (await zippedText(event, body)) ?? body
  })
})
