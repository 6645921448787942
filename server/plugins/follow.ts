import { addAir } from '../services/shop'
import { sendWaiting } from '../services/mail'
import { openPool } from '../database/db'
import { z } from 'zod'

const CLIMATE_MS = 15_000
const MAIL_MS = 1_500
const reading = z.object({ temperature_C: z.number(), rh: z.number().gt(0).max(1), simulated: z.boolean().default(false) })

/** Reads the climate logger and sends waiting mail, for as long as the server runs. */
export default defineNitroPlugin((nitro) => {
  const { climateUrl, databaseUrl } = useRuntimeConfig()
  if (!databaseUrl) return
  let busy = false
  const climate = async () => {
    try {
      await ready()
      const answer = await fetch(climateUrl, { signal: AbortSignal.timeout(3000) })
      const { simulated, ...air } = reading.parse(await answer.json())
      await addAir(air, simulated ? 'simulated logger' : 'climate logger', await now(), null)
    }
    catch { /* no reading is recorded: the page says since when */ }
  }
  const mail = async () => {
    if (busy) return
    busy = true
    try {
      await ready()
      await sendWaiting(await now())
    }
    catch (error) { console.error('mail:', (error as Error).message) }
    finally { busy = false }
  }
  const timers = [setInterval(climate, CLIMATE_MS), setInterval(mail, MAIL_MS)]
  void climate()
  nitro.hooks.hook('close', async () => {
    timers.forEach(clearInterval)
    await openPool().end()
  })
})
