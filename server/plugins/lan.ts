import { createServer, type Server } from 'node:https'
import type { Socket } from 'node:net'
import { toNodeListener } from 'h3'

const LOOK_MS = 5000
const LOOPBACK = /^(127\.|::1$)/
const plain = (address = '') => address.replace(/^::ffff:/, '')

/** On the shop's own network, when the start command was asked for it: the same pages, over TLS. */
export default defineNitroPlugin(nitro => {
  const { lanDir, lanHost } = useRuntimeConfig()
  if (!lanDir) return
  let shown = readLan()!
  const server: Server = createServer({ cert: shown.certificate, key: shown.key }, toNodeListener(nitro.h3App))
  // a machine may stand in other networks too: there nobody is answered
  server.on('connection', (socket: Socket) => {
    const at = plain(socket.localAddress)
    if (!LOOPBACK.test(at) && !shown.lan.hosts.includes(at)) socket.destroy()
  })
  server.on('error', error => console.error(`The shop's network: ${error.message}`))
  const { port } = shown.lan
  server.listen({ port, host: lanHost }, () => console.log(`On the shop's network: ${lanAddresses().join(' ')}`))
  const look = setInterval(() => {
    try {
      const now = readLan()!
      if (now === shown) return
      server.setSecureContext({ cert: now.certificate, key: now.key })
      shown = now
    } catch (error) {
      // what is just being written is read whole at the next look
      console.error(`The shop's network: ${(error as Error).message}`)
    }
  }, LOOK_MS)
  nitro.hooks.hook('close', () => {
    clearInterval(look)
    server.close()
    server.closeAllConnections()
  })
})
