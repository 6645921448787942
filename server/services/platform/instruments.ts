import { connect, type Socket } from 'node:net'

/** Where an instrument listens, as `host:port`. */
function openLine(address: string): Socket {
  const [host = '127.0.0.1', port = ''] = address.split(':')
  const socket = connect({ host, port: Number(port) })
  socket.setEncoding('utf8').setNoDelay(true)
  return socket
}

/** Hands on each whole line that comes. */
function eachLine(socket: Socket, take: (line: string) => void) {
  let rest = ''
  socket.on('data', (chunk: string) => {
    const lines = (rest + chunk).split(/\r?\n/)
    rest = lines.pop() ?? ''
    for (const line of lines) take(line)
  })
}

const ANSWER_MS = 5000

export interface Measurement {
  meter: string
  wavelengths_nm: number[]
  values: number[]
}

/**
 * Asks the colour meter for one measurement; the line protocol is described in standins/meter.ts.
 * @throws Fail when no meter answers, or not in its words.
 */
export function measureSample(sample: string): Promise<Measurement> {
  const { meterLine, mode } = useRuntimeConfig()
  return new Promise((resolve, reject) => {
    const socket = openLine(meterLine)
    const give = (problem: Error | null, got?: Measurement) => {
      socket.destroy()
      if (problem) reject(problem)
      else resolve(got!)
    }
    const silent = () =>
      give(
        fail(503, 'no-meter', 'The colour meter does not answer. Look at its cable and power, or type the reading in.'),
      )
    let meter = ''
    socket.setTimeout(ANSWER_MS, silent)
    socket.on('error', silent)
    socket.on('connect', () => socket.write(`MEASURE ${sample.replaceAll(/\s+/g, ' ')}\r\n`))
    socket.on('end', silent)
    eachLine(socket, line => {
      const [word, ...rest] = line.split(' ')
      if (word === 'METER') {
        meter = rest.join(' ')
        if (mode === 'shop' && rest.includes('simulated')) silent()
      } else if (word === 'ERROR') give(fail(502, 'meter', `The colour meter says: ${rest.join(' ')}`))
      else if (word === 'SPECTRUM') {
        const [from, , step, ...values] = rest.map(Number)
        const bad = values.length === 0 || [from, step, ...values].some(v => v === undefined || !Number.isFinite(v))
        if (bad) give(fail(502, 'meter', "The colour meter's answer could not be read. Measure again."))
        else give(null, { meter, wavelengths_nm: values.map((_, i) => from! + i * step!), values })
      }
    })
  })
}

/**
 * Listens to the balance until `stopped`; `take` gets each weight in grams, or null when the line broke. The line
 * protocol is described in standins/balance.ts.
 */
export function followBalance(
  take: (weight_g: number | null, steady: boolean, simulated: boolean) => void,
): () => void {
  const { balanceLine, mode } = useRuntimeConfig()
  const socket = openLine(balanceLine)
  let simulated = false
  socket.on('error', () => {
    /* 'close' follows and tells it */
  })
  socket.on('close', () => take(null, false, simulated))
  eachLine(socket, line => {
    const [word, state, value] = line.split(/\s+/)
    if (word === 'BALANCE') simulated = line.includes('simulated')
    if (mode === 'shop' && simulated) {
      socket.destroy()
      return
    }
    if (word === 'W') take(Number(value), state === 'S', simulated)
  })
  return () => {
    socket.removeAllListeners('close')
    socket.destroy()
  }
}

/** Tells the balance to tare; the simulated one also to pour and to stop. @throws Fail when it does not answer. */
export function tellBalance(words: string): Promise<{ ok: true }> {
  return new Promise((resolve, reject) => {
    const socket = openLine(useRuntimeConfig().balanceLine)
    const silent = () => {
      socket.destroy()
      reject(
        fail(503, 'no-balance', 'The balance does not answer. Look at its cable and power, or type the weight in.'),
      )
    }
    socket.setTimeout(ANSWER_MS, silent)
    socket.on('error', silent)
    eachLine(socket, line => {
      if (line.startsWith('BALANCE')) socket.write(`${words}\r\n`)
      else if (line === 'OK') {
        socket.destroy()
        resolve({ ok: true })
      } else if (line.startsWith('ERROR')) {
        socket.destroy()
        reject(fail(502, 'balance', `The balance says: ${line.slice(6)}`))
      }
    })
  })
}
