import { z } from 'zod'
import { openPool } from '../database/db'
import { closeExpired, remindDue, renewDue } from '../services/client/houseRules'
import { repeatErasures } from '../services/client/privacy'
import { takeJob, thin } from '../services/platform/jobs'
import { sendWaiting } from '../services/platform/mail'
import { solveIfDue } from '../services/schedule/solve'
import { addAir } from '../services/shop/air'
import { forecast, keepWeather, readWeather } from '../services/shop/weather'

const CLIMATE_S = 15
/** How often the weather is asked for, and while none is known. */
const [WEATHER_S, NO_WEATHER_S] = [900, 30] as const
const MAIL_S = 1.5
const THIN_S = 3600
const REMIND_S = 60
/** How often it is looked whether something is to be reminded of or thinned; tests do not wait for it. */
const [LOOK_S, LOOK_TEST_S] = [10, 1] as const
/** The schedule is looked at so often; tests ask for it. */
const SCHEDULE_S = 2
const measured = z.object({ temperature_C: z.number().min(-40).max(60), rh: z.number().gt(0).max(1) })
/** The shop's air, and by their names that of rooms with a logger of their own. */
const reading = measured.extend({
  simulated: z.boolean().default(false),
  loggers: z.record(z.string().trim().min(1).max(40), measured).default({}),
})
const MOST_LOGGERS = 20
const answerOf = (url: string): Promise<unknown> =>
  fetch(url, { signal: AbortSignal.timeout(3000) })
    .then(a => a.json())
    .catch(() => null)

/**
 * Reads the climate logger, sends waiting mail, thins what only grows and keeps the schedule, for as long as the
 * server runs. Of several instances one does each.
 */
export default defineNitroPlugin(nitro => {
  const { climateUrl, weatherUrl, databaseUrl, mode } = useRuntimeConfig()
  if (!databaseUrl) return
  const climate = async () => {
    if (!(await takeJob('climate', CLIMATE_S - 1))) return
    const got = reading.safeParse(await answerOf(climateUrl))
    // no reading is recorded: the page says since when
    if (!got.success) return
    const { loggers, simulated, ...shop } = got.data
    const [source, at] = [simulated ? 'simulated logger' : 'climate logger', await now()]
    await addAir(shop, source, at, null)
    for (const [logger, air] of Object.entries(loggers).slice(0, MOST_LOGGERS))
      await addAir(air, source, at, null, { name: '', logger })
  }
  const weather = async () => {
    const at = await now()
    const known = (await readWeather(at)).hours.length > 0
    if (!(await takeJob(known ? 'weather' : 'weather-none', known ? WEATHER_S : NO_WEATHER_S))) return
    const asked = new URL(weatherUrl)
    asked.searchParams.set('from', at.toISOString())
    const got = forecast.safeParse(await answerOf(asked.href))
    if (got.success) await keepWeather(got.data, at)
  }
  const mail = async () => {
    await sendWaiting(await now())
  }
  const reminding = async () => {
    if (!(await takeJob('remind', REMIND_S))) return
    const at = await now()
    await closeExpired(at)
    await remindDue(at)
    await renewDue(at)
    await repeatErasures(at)
  }
  const thinning = async () => {
    if (await takeJob('thin', THIN_S)) await thin(await now())
  }
  const scheduling = async () => {
    await solveIfDue(await now())
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
  const look_s = mode === 'test' ? LOOK_TEST_S : LOOK_S
  const timers = [
    every(CLIMATE_S, 'climate', climate),
    every(CLIMATE_S, 'weather', weather),
    every(MAIL_S, 'mail', mail),
    every(look_s, 'thinning', thinning),
    every(look_s, 'reminding', reminding),
  ]
  if (mode !== 'test') timers.push(every(SCHEDULE_S, 'schedule', scheduling))
  nitro.hooks.hook('close', async () => {
    timers.forEach(clearInterval)
    await closeWorkers()
    await openPool().end()
  })
})
