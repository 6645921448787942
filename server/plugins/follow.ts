import { z } from 'zod'
import { openPool } from '../database/db'
import { takeJob, thin } from '../services/platform/jobs'
import { sendWaiting } from '../services/platform/mail'
import { addAir } from '../services/shop/air'

const CLIMATE_S = 15
const MAIL_S = 1.5
const THIN_S = 3600
const reading = z.object({
  temperature_C: z.number().min(-40).max(60),
  rh: z.number().gt(0).max(1),
  simulated: z.boolean().default(false),
})

/**
 * Reads the climate logger, sends waiting mail and thins what only grows, for as long as the server runs. Of several
 * instances one does each.
 */
export default defineNitroPlugin(nitro => {
  const { climateUrl, databaseUrl } = useRuntimeConfig()
  if (!databaseUrl) return
  const climate = async () => {
    if (!(await takeJob('climate', CLIMATE_S - 1))) return
    const answer = await fetch(climateUrl, { signal: AbortSignal.timeout(3000) })
      .then(a => a.json())
      .catch(() => null)
    const got = reading.safeParse(answer)
    // no reading is recorded: the page says since when
    if (got.success)
      await addAir(
        { temperature_C: got.data.temperature_C, rh: got.data.rh },
        got.data.simulated ? 'simulated logger' : 'climate logger',
        await now(),
        null,
      )
  }
  const mail = async () => {
    await sendWaiting(await now())
  }
  const thinning = async () => {
    if (await takeJob('thin', THIN_S)) await thin(await now())
  }
  /** Does `work` again and again, never twice at once; what goes wrong is told once until it goes right again. */
  const every = (seconds: number, name: string, work: () => Promise<void>) => {
    let busy = false
    let told = ''
    const turn = async () => {
      if (busy) return
      busy = true
      try {
        await ready()
        await work()
        told = ''
      } catch (error) {
        const says = (error as Error).message
        if (says !== told) console.error(`${name}:`, says)
        told = says
      } finally {
        busy = false
      }
    }
    void turn()
    return setInterval(turn, seconds * 1000)
  }
  const timers = [every(CLIMATE_S, 'climate', climate), every(MAIL_S, 'mail', mail), every(10, 'thinning', thinning)]
  nitro.hooks.hook('close', async () => {
    timers.forEach(clearInterval)
    await closeWorkers()
    await openPool().end()
  })
})
