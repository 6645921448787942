/**
 * A simulated balance on a TCP line, as a real one would be on a serial line. Usage: balance.ts PORT
 *
 *   ← BALANCE simulated 0.01 g              on connecting
 *   ← W D 123.45                            ten times a second; S steady, D still moving; grams
 *   → TARE                                  what stands on it counts as nought
 *   → POUR 6                                somebody pours so many grams a second (the simulated one only)
 *   → STOP                                  the pouring stops; a little runs after
 *   ← OK, or ERROR what is wrong
 *
 * Lines end with CR LF.
 */
import { createServer, type Socket } from 'node:net'

const port = Number(process.argv[2])
const TICK_MS = 100
const lines = new Set<Socket>()
let weight = 0
let tare = 0
let flow_g_s = 0

setInterval(() => {
  weight += (flow_g_s * TICK_MS) / 1000
  const state = flow_g_s > 0 ? 'D' : 'S'
  for (const socket of lines) socket.write(`W ${state} ${(weight - tare).toFixed(2)}\r\n`)
}, TICK_MS)

createServer(socket => {
  lines.add(socket)
  socket.write('BALANCE simulated 0.01 g\r\n')
  socket
    .setEncoding('utf8')
    .on('error', () => socket.destroy())
    .on('close', () => lines.delete(socket))
    .on('data', (chunk: string) => {
      for (const line of chunk.split(/\r?\n/).filter(Boolean)) {
        const [word, value] = line.split(' ')
        if (word === 'TARE') {
          tare = weight
          socket.write('OK\r\n')
        } else if (word === 'POUR' && Number(value) > 0 && Number(value) <= 200) {
          flow_g_s = Number(value)
          socket.write('OK\r\n')
        } else if (word === 'STOP') {
          flow_g_s = 0
          socket.write('OK\r\n')
        } else socket.write('ERROR known are TARE, POUR grams-a-second, STOP\r\n')
      }
    })
}).listen(port, '127.0.0.1')
