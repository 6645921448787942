import { type ChildProcess, spawn } from 'node:child_process'
import { logTo } from './log'
import { endProcess, idOf, isAlive, pause, type ProcessId } from './process'

/** One process that is kept running. */
export interface PartSpec {
  name: string
  port: number
  /** asked anew at each start, so that turned keys and databases count */
  start: () => { command: string; args: string[]; env?: Record<string, string> }
  /** does it answer? false or too late counts as no */
  probe: (within_ms: number) => Promise<boolean>
  /** after it answers for the first time since a start */
  prepare?: () => Promise<void>
  /** how long a start may take (a database recovers first), and an end */
  startWithin_ms: number
  endWithin_ms: number
  /** unanswered probes in a row after which it counts as frozen */
  frozenAfter: number
  /** when it cannot be kept running, nothing else makes sense */
  essential: boolean
}
export type PartState = 'starting' | 'running' | 'waiting' | 'given-up' | 'stopped'
export interface PartStatus {
  name: string
  port: number
  state: PartState
  since: string
  restarts: number
  id: ProcessId | null
}

const PROBE_EVERY_MS = 5000
const PROBE_WITHIN_MS = 5000
const FIRST_LOOK_MS = 150
/** Pauses between restarts double from one second to a minute; a part that ran for two minutes begins anew. */
const PAUSE_MS = { first: 1000, most: 60_000 }
export const QUIET_MS = 120_000
export const MOST_ENDS = 5

/**
 * What the ends of a part so far mean: the pause before the next start, or null to give up (five ends in two minutes).
 */
export function nextPause(ends_ms: readonly number[], now_ms: number): number | null {
  const recent = ends_ms.filter(at => now_ms - at < QUIET_MS).length
  return recent >= MOST_ENDS ? null : Math.min(PAUSE_MS.most, PAUSE_MS.first * 2 ** Math.max(0, recent - 1))
}

/** `bounded`: as a shop wants it. Tests take `never`, or `always`, which never gives up. */
export type Restart = 'bounded' | 'never' | 'always'

/** Starts a process, watches it, and starts it again when it ends or freezes. */
export class Part {
  private child: ChildProcess | undefined
  private id: ProcessId | null = null
  private ends: number[] = []
  private restarts = 0
  private stopping = false
  private state: PartState = 'stopped'
  private since = new Date().toISOString()
  private wake: (() => void) | undefined
  private readonly write: (text: string | Buffer) => void
  private loop: Promise<void> | undefined

  constructor(
    private readonly spec: PartSpec,
    logs: string,
    private readonly changed: () => void,
    private readonly gaveUp: (part: Part) => void,
    private readonly restart: Restart = 'bounded',
  ) {
    this.write = logTo(`${logs}/${spec.name}.log`)
  }

  get name() {
    return this.spec.name
  }

  get essential() {
    return this.spec.essential
  }

  get isRunning() {
    return this.state === 'running'
  }

  get isStill() {
    return this.loop === undefined
  }

  get hasGivenUp() {
    return this.state === 'given-up'
  }

  status(): PartStatus {
    return {
      name: this.spec.name,
      port: this.spec.port,
      state: this.state,
      since: this.since,
      restarts: this.restarts,
      id: this.id,
    }
  }

  private be(state: PartState) {
    if (this.state === state) return
    this.state = state
    this.since = new Date().toISOString()
    this.changed()
  }

  private note(says: string) {
    this.write(`[${new Date().toISOString()}] ${says}\n`)
  }

  /** Begins to keep the part running. */
  begin(): void {
    this.stopping = false
    this.loop ??= this.keep().finally(() => {
      this.loop = undefined
    })
  }

  private async keep() {
    while (!this.stopping) {
      const ended = this.launch()
      const outcome = await Promise.race([ended, this.watch(ended)])
      if (this.stopping) break
      this.note(`ended: ${outcome}`)
      if (this.id) await endProcess(this.id, 0)
      this.ends.push(Date.now())
      const wait = this.restart === 'always' ? PAUSE_MS.first : nextPause(this.ends, Date.now())
      if (this.restart === 'never') {
        this.be('stopped')
        this.note('not started again')
        return
      }
      if (wait === null) {
        this.be('given-up')
        this.note(`gave up: ${MOST_ENDS} ends in two minutes`)
        this.gaveUp(this)
        return
      }
      this.be('waiting')
      await Promise.race([
        pause(wait),
        new Promise<void>(resolve => {
          this.wake = resolve
        }),
      ])
      this.restarts++
    }
    this.be('stopped')
  }

  /** Starts the process; resolves with how it ended. */
  private launch(): Promise<string> {
    this.be('starting')
    return new Promise(resolve => {
      let command: ReturnType<PartSpec['start']>
      try {
        command = this.spec.start()
      } catch (error) {
        this.id = null
        resolve((error as Error).message)
        return
      }
      // a group of its own: Ctrl-C reaches us alone, and we end the parts in order
      this.child = spawn(command.command, command.args, {
        env: { ...process.env, ...command.env },
        stdio: ['ignore', 'pipe', 'pipe'],
        detached: true,
      })
      this.id = this.child.pid ? idOf(this.child.pid) : null
      this.note(`started, process ${this.child.pid ?? 'none'}`)
      this.changed()
      this.child.stdout!.on('data', this.write)
      this.child.stderr!.on('data', this.write)
      this.child.on('error', error => resolve(error.message))
      this.child.on('exit', (code, signal) => resolve(signal ?? `code ${code}`))
    })
  }

  /** Looks until it answers, then again and again; resolves when it does not any more. */
  private async watch(ended: Promise<string>): Promise<string> {
    const spec = this.spec
    const over = ended.then(() => true)
    const isOver = () => Promise.race([over, Promise.resolve(false)])
    const limit = Date.now() + spec.startWithin_ms
    // a question that cannot be asked is one without an answer
    const answers = () => spec.probe(PROBE_WITHIN_MS).catch(() => false)
    while (!(await answers())) {
      if ((await isOver()) || this.stopping) return ended
      if (Date.now() > limit) return `no answer within ${spec.startWithin_ms / 1000} s of its start`
      await pause(FIRST_LOOK_MS)
    }
    try {
      await spec.prepare?.()
    } catch (error) {
      return `could not be made ready: ${(error as Error).message}`
    }
    if ((await isOver()) || this.stopping) return ended
    this.be('running')
    for (let silent = 0; ;) {
      await Promise.race([pause(PROBE_EVERY_MS), over])
      if ((await isOver()) || this.stopping) return ended
      silent = (await answers()) ? 0 : silent + 1
      if (silent >= spec.frozenAfter) return `no answer to ${silent} questions: frozen`
    }
  }

  /** Ends the part and does not start it again. */
  async stop(): Promise<void> {
    this.stopping = true
    this.wake?.()
    if (this.id && isAlive(this.id)) await endProcess(this.id, this.spec.endWithin_ms)
    await this.loop
  }
}
