/** Pages carry what only their reader may see: no cache keeps them. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', response => {
    response.headers = { ...response.headers, 'cache-control': 'no-store' }
  })
})
