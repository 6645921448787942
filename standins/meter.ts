/**
 * A simulated colour meter on a TCP line, as a real one would be on a serial line. Usage: meter.ts PORT
 *
 *   → MEASURE name of the sample
 *   ← METER simulated 45/0 400-700
 *   ← SPECTRUM 400 700 10 0.1234 … (31 reflectances)
 *   → SAMPLE r1,r2,… (31 reflectances)      lays this sample under the meter for the next measurement
 *   ← OK
 *   ← ERROR what is wrong
 *
 * Lines end with CR LF. A sample that was not laid under it is made up from its name, always the same, read with a
 * little noise.
 */
import { createServer } from 'node:net'
import { clearCoat, colouredInner, readOf, type Spectrum } from '../core/colour'
import { numbered, TARGETS, WOODS } from '../demo/colours'

const port = Number(process.argv[2])
const NOISE = 0.003
/** How much lighter a first trial reads, as a power. */
const WEAK = 0.12
const BROWN = numbered.find(c => c.name.includes('walnut brown'))!
let laid: Spectrum | null = null
let seed = 1

/** A repeatable noise around nought. */
const noise = () => {
  seed = (seed * 16807) % 2147483647
  return (seed / 2147483647 - 0.5) * 2
}
/**
 * Bare wood by its name; a target of the demo by its name, a trial of it a little weak and each next one less so; a
 * brown band otherwise.
 */
function byName(name: string): Spectrum {
  const wood = Object.keys(WOODS).find(w => name.toLowerCase().includes(w)) as keyof typeof WOODS | undefined
  const number = [...name].reduce((sum, ch) => (sum * 31 + ch.codePointAt(0)!) % 9973, 7)
  const inner = WOODS[wood ?? (Object.keys(WOODS) as (keyof typeof WOODS)[])[number % Object.keys(WOODS).length]!]
  if (/bare|wood/i.test(name)) return inner
  const target = Object.values(TARGETS).find(t => t.called.test(name))
  if (target) {
    const trial = /\btry (\d+)/i.exec(name)
    return trial ? target.read.map(r => r ** (1 - WEAK / Number(trial[1]))) : target.read
  }
  return readOf(colouredInner(inner, [BROWN], [10 + (number % 30)]), {
    clear: clearCoat('waterborne-polyurethane'),
    gloss: 'excluded',
  })
}

createServer(socket => {
  let rest = ''
  socket
    .setEncoding('utf8')
    .on('error', () => socket.destroy())
    .on('data', (chunk: string) => {
      const lines = (rest + chunk).split(/\r?\n/)
      rest = lines.pop() ?? ''
      for (const line of lines) {
        const [word, ...words] = line.split(' ')
        if (word === 'MEASURE') {
          const sample = laid ?? byName(words.join(' '))
          laid = null
          const whole = 1 + NOISE * noise()
          socket.write(
            'METER simulated 45/0 400-700\r\nSPECTRUM 400 700 10 ' +
              `${sample.map(r => Math.max(0, r * whole * (1 + NOISE * noise())).toFixed(5)).join(' ')}\r\n`,
          )
        } else if (word === 'SAMPLE') {
          const values = words.join('').split(',').map(Number)
          if (values.length === 31 && values.every(v => v >= 0 && v <= 1.2)) {
            laid = values
            socket.write('OK\r\n')
          } else socket.write('ERROR a sample has 31 reflectances from 0 to 1.2\r\n')
        } else if (line) socket.write(`ERROR unknown word ${word}\r\n`)
      }
    })
}).listen(port, '127.0.0.1')
