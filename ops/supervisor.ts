import { existsSync, rmSync } from 'node:fs'
import { secureUsers } from './database'
import { readKeys } from './keys'
import { keepLan, lanUrls, readLan } from './lan'
import { logTo } from './log'
import { backUpNightly } from './nightly'
import { type PartSpec, type PartStatus, Part, type Restart } from './part'
import { databasePart, makeDatabase, standInParts, webPart, type Web } from './parts'
import { endProcess, idOf, isAlive, isPortFree, pause, type ProcessId } from './process'
import { privateDir, type Profile, readIf, writeWhole } from './profile'

/** What is kept running: a database, the stand-ins, and web servers on it. */
export interface Plan {
  profile: Profile
  webs: Web[]
  standIns: boolean
  flush: 1 | 2
  restart: Restart
  nightly: boolean
}
export interface State {
  supervisor: ProcessId
  ready: boolean
  parts: PartStatus[]
}

const stateFile = (profile: Profile) => `${profile.dir}/state.json`
/** What the supervisor of a profile wrote last; null where there is none, or it can be read by nobody. */
export function readState(profile: Profile): State | null {
  const text = readIf(stateFile(profile))
  try {
    return text ? (JSON.parse(text) as State) : null
  } catch {
    return null
  }
}
/** The supervisor that runs now: its number, checked against when it started. */
export const runningState = (profile: Profile): State | null => {
  const state = readState(profile)
  return state && isAlive(state.supervisor) ? state : null
}

/** Parts that outlived a supervisor that was killed; they are ours by number and start. */
async function endOrphans(profile: Profile) {
  const state = readState(profile)
  if (!state || isAlive(state.supervisor)) return
  for (const part of state.parts.toReversed()) if (part.id) await endProcess(part.id, 20_000)
}

const LAN_LOOK_MS = 30_000
const NIGHTLY_LOOK_MS = 10 * 60_000
const TRY_STANDIN_AGAIN_MS = 10 * 60_000

export class Supervisor {
  private parts: Part[] = []
  private ready = false
  private renewing: Promise<void> = Promise.resolve()
  private stopping: Promise<void> | undefined
  private readonly logs: string
  private readonly write: (text: string) => void
  private timers: ReturnType<typeof setInterval>[] = []
  /** why everything was stopped, when a part could not be kept running */
  gaveUp = ''

  constructor(
    private readonly plan: Plan,
    private readonly say: (text: string) => void,
    private readonly ended: (code: number) => void,
  ) {
    this.logs = privateDir(`${plan.profile.dir}/logs`)
    this.write = logTo(`${this.logs}/supervisor.log`)
  }

  private note(text: string) {
    this.write(`[${new Date().toISOString()}] ${text}\n`)
  }

  private save = () => {
    const state: State = { supervisor: idOf(process.pid), ready: this.ready, parts: this.parts.map(p => p.status()) }
    writeWhole(stateFile(this.plan.profile), JSON.stringify(state, null, 1))
  }

  private part(spec: PartSpec) {
    const part = new Part(spec, this.logs, this.save, p => this.lose(p), this.plan.restart)
    this.parts.push(part)
    part.begin()
    return part
  }

  /**
   * A part that cannot be kept running: without database or web nothing is left to serve; a stand-in is tried again
   * later.
   */
  private lose(part: Part) {
    const says =
      `${part.name} ended five times in two minutes and is not started again. Its log is ` +
      `${this.logs}/${part.name}.log.`
    this.note(says)
    this.say(says)
    if (part.essential) {
      this.gaveUp = says
      void this.stop(1)
      return
    }
    this.timers.push(
      setTimeout(() => {
        if (!this.stopping) part.begin()
      }, TRY_STANDIN_AGAIN_MS),
    )
  }

  private async until(part: Part, within_ms: number) {
    for (const limit = Date.now() + within_ms; !part.isRunning;) {
      if (this.stopping || part.hasGivenUp)
        throw new Error(`${part.name} did not start; its log is ${this.logs}/${part.name}.log`)
      if (Date.now() > limit)
        throw new Error(
          `${part.name} is not ready after ${within_ms / 1000} s; its log is ${this.logs}/${part.name}.log`,
        )
      await pause(40)
    }
  }

  /** Starts everything in order; resolves when all of it answers. @throws Error in words. */
  async start(): Promise<void> {
    const { profile, webs, standIns, flush, nightly } = this.plan
    await endOrphans(profile)
    readKeys(profile)
    const onLan = webs.some(w => w.lan)
    if (onLan) await keepLan(profile, Date.now())
    const specs = {
      database: databasePart(profile, flush),
      standIns: standIns ? standInParts(profile) : [],
      webs: webs.map(w => webPart(profile, w)),
    }
    const network = onLan ? [{ name: "shop's network", port: profile.ports.lan }] : []
    for (const { name, port } of [specs.database, ...specs.standIns, ...specs.webs, ...network]) {
      if (!(await isPortFree(port)))
        throw new Error(
          `Port ${port}, for the ${name}, is taken by another program of this machine. End that one, then start again.`,
        )
    }
    this.note('starts')
    this.save()
    const database = this.part(specs.database)
    const others = specs.standIns.map(s => this.part(s))
    await this.until(database, 10 * 60_000)
    for (const web of webs) await makeDatabase(profile, web)
    const servers = specs.webs.map(s => this.part(s))
    for (const part of [...servers, ...others]) await this.until(part, 2 * 60_000)
    this.ready = true
    this.save()
    if (onLan) this.timers.push(setInterval(() => void this.lookAtLan(), LAN_LOOK_MS))
    if (nightly) {
      const night = () =>
        backUpNightly(profile, text => this.note(text)).catch((error: Error) => this.note(`backup: ${error.message}`))
      this.timers.push(setInterval(night, NIGHTLY_LOOK_MS))
      void night()
    }
  }

  /** A machine may get another address; the web server sees by itself what is written. */
  private async lookAtLan() {
    try {
      if (!(await keepLan(this.plan.profile, Date.now()))) return
      const says = `On the shop's network: ${lanUrls(readLan(this.plan.profile)).join(' ') || 'no address'}`
      this.note(says)
      this.say(says)
    } catch (error) {
      this.note(`the shop's network: ${(error as Error).message}`)
    }
  }

  /** Begins with every part again that is not being kept running. */
  beginAgain(): void {
    for (const part of this.parts) if (part.isStill) part.begin()
  }

  /** Starts the web servers anew, on the keys and the database that count now; one renewal after the other. */
  renewWebs(): Promise<void> {
    this.renewing = this.renewing
      .then(() => this.renew())
      .catch((error: Error) => {
        this.note(error.message)
        this.say(error.message)
      })
    return this.renewing
  }

  /** What could fail comes first, while the servers of before still run. */
  private async renew(): Promise<void> {
    const { profile, webs } = this.plan
    await secureUsers(profile, readKeys(profile).database)
    for (const web of webs) await makeDatabase(profile, web)
    this.note('web servers are started anew')
    const isWeb = (p: Part) => webs.some(w => w.name === p.name)
    await Promise.all(this.parts.filter(isWeb).map(p => p.stop()))
    this.parts = this.parts.filter(p => !isWeb(p))
    if (!this.stopping) for (const web of webs) this.part(webPart(profile, web))
  }

  /** Stops everything in order: web servers first, the database last. */
  stop(code: number): Promise<void> {
    return (this.stopping ??= (async () => {
      this.note('stops')
      this.ready = false
      this.timers.forEach(clearTimeout)
      const [database, ...rest] = this.parts
      await Promise.all(rest.map(p => p.stop()))
      await database?.stop()
      this.save()
      const file = stateFile(this.plan.profile)
      if (existsSync(file)) rmSync(file)
      this.ended(code)
    })())
  }
}
