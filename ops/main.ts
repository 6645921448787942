/**
 * Keeps Hantverk running and its data safe: what `./hantverk` hands over to once everything is installed and built.
 * Usage: main.ts run PROFILE[:SET] | wait PROFILE | stop PROFILE… | status | backup FILE [PROFILE] | restore FILE
 * [PROFILE] | keys [PROFILE]
 */
import { spawn } from 'node:child_process'
import { basename, resolve } from 'node:path'
import QRCode from 'qrcode'
import { backUp, restore } from './backup'
import { rootSql, secureUsers } from './database'
import { readKeys, turnKeys } from './keys'
import { lanUrls, readLan } from './lan'
import { takeLock } from './lock'
import { recordBackup } from './nightly'
import { Part } from './part'
import { databasePart, type Web } from './parts'
import { endProcess, isAlive, pause } from './process'
import {
  currentDatabase,
  existsIn,
  isProfile,
  privateDir,
  type ProfileName,
  profileOf,
  type Profile,
  readIf,
  ROOT,
  writeWhole,
} from './profile'
import { type Plan, readState, runningState, type State, Supervisor } from './supervisor'

const say = (text: string) => process.stderr.write(`${text}\n`)
class Refused extends Error {}

/**
 * Sets of web servers that tests run on: two instances on one database, or a shop that is loaded and one that is new.
 */
function websOf(profile: Profile, set: string): Web[] {
  const { web, second } = profile.ports
  const named = { shop: 'shop', demo: 'demo', dev: 'demo' } as const
  const mode = named[profile.name as keyof typeof named] ?? 'test'
  // made-up data stays on this machine
  const lan = process.env.HANTVERK_LAN === 'yes' && mode !== 'demo'
  if (set === 'api')
    return [
      { name: 'web', port: web, mode, database: 'hantverk_api' },
      { name: 'web-two', port: second, mode, database: 'hantverk_api' },
    ]
  if (set === 'browser')
    return [
      { name: 'web', port: web, mode, database: 'hantverk_browser', lan },
      { name: 'web-new', port: second, mode, database: 'hantverk_new' },
    ]
  return [{ name: 'web', port: web, mode, database: null, fromSource: profile.name === 'dev', lan }]
}
const restartOf = (named: string | undefined) => (named === 'never' || named === 'always' ? named : 'bounded')
function planOf(profile: Profile, set: string): Plan {
  const real = profile.name === 'shop'
  const own = ['CLIMATE', 'WEATHER', 'SMTP', 'SWAB', 'METER', 'BALANCE'].every(name => process.env[`HANTVERK_${name}`])
  return {
    profile,
    webs: websOf(profile, set),
    standIns: !(real && own),
    flush: profile.name === 'test' ? 2 : 1,
    restart: restartOf(process.env.HANTVERK_RESTART),
    nightly: real || process.env.HANTVERK_NIGHTLY === 'yes',
  }
}

const BANNER = {
  demo: ({ ports }: Profile) => `
Hantverk is ready:   http://127.0.0.1:${ports.web}
Simulated mail:      http://127.0.0.1:${ports.mails}
Sign in as           ingrid (owner) · tove (lead) · emil (finisher) · sara (office)
Password for each    verdigris-9
Ctrl-C stops it. The data stays; --fresh starts over.
`,
  shop: ({ ports }: Profile) =>
    `Hantverk is ready: http://127.0.0.1:${ports.web}   (the first visit makes the owner; Ctrl-C stops it)`,
} as const

/** How the shop is opened from its network, with a code for a tablet's camera. */
async function onLan(profile: Profile) {
  const urls = lanUrls(readLan(profile))
  if (urls.length === 0) return say('This machine stands in no network of a house. When it does, tablets can open it.')
  say(`On the shop's network:\n  ${urls.join('\n  ')}`)
  say(await QRCode.toString(`${urls[0]}/trust`, { type: 'terminal', small: true }))
  say('A tablet opens this code first, and trusts the shop in four steps. More under Shop, People.')
}

/** Loads the demo's shop through the API, once. */
async function loadDemo({ dir, ports }: Profile) {
  if (existsIn(dir, 'loaded')) return
  say('Loading the demo shop (a minute)')
  const child = spawn(
    process.execPath,
    [
      `${ROOT}/node_modules/jiti/lib/jiti-cli.mjs`,
      `${ROOT}/demo/load.ts`,
      `http://127.0.0.1:${ports.web}`,
      `http://127.0.0.1:${ports.climate}`,
      `http://127.0.0.1:${ports.mails}`,
      `127.0.0.1:${ports.meter}`,
    ],
    { stdio: ['ignore', 'ignore', 'pipe'] },
  )
  let wrong = ''
  child.stderr.on('data', (chunk: Buffer) => {
    wrong = (wrong + chunk.toString()).slice(-2000)
  })
  const code = await new Promise<number | null>(done => child.on('close', done))
  if (code !== 0) throw new Refused(`The demo shop could not be loaded; try ./hantverk demo --fresh\n${wrong}`)
  writeWhole(`${dir}/loaded`, new Date().toISOString())
}

async function run(profile: Profile, set: string) {
  if (!(await takeLock(profile)))
    throw new Refused(`It is running already: http://127.0.0.1:${profile.ports.web} (./hantverk stop ends it)`)
  privateDir(`${profile.dir}/logs`)
  const supervisor = new Supervisor(planOf(profile, set), say, code => process.exit(code))
  const end = () => {
    say('\nStopping')
    void supervisor.stop(0)
  }
  process.on('SIGTERM', end).on('SIGINT', end)
  process.on('SIGHUP', () => void supervisor.renewWebs())
  process.on('SIGUSR2', () => supervisor.beginAgain())
  try {
    await supervisor.start()
    const shows = profile.name === 'demo' || profile.name === 'dev'
    if (shows) await loadDemo(profile)
    if (shows) say(BANNER.demo(profile))
    if (profile.name === 'shop') {
      say(BANNER.shop(profile))
      if (process.env.HANTVERK_LAN === 'yes') await onLan(profile)
    }
  } catch (error) {
    say(supervisor.gaveUp ? '' : (error as Error).message)
    await supervisor.stop(1)
  }
}

const RENEW_WITHIN_MS = 90_000
const READY_WITHIN_MS = 5 * 60_000
const GONE_AFTER_MS = 10_000
async function waitFor(profile: Profile) {
  let seen = Date.now()
  for (const until = Date.now() + READY_WITHIN_MS; ;) {
    const state = runningState(profile)
    if (state?.ready) return
    if (state) seen = Date.now()
    if (Date.now() - seen > GONE_AFTER_MS) throw new Refused(`${profile.name} is not starting.`)
    if (Date.now() > until)
      throw new Refused(`${profile.name} is not ready after five minutes; look into ${profile.dir}/logs`)
    await pause(100)
  }
}

async function stop(profile: Profile) {
  const state = readState(profile)
  if (!state) return
  await endProcess(state.supervisor, 90_000)
  for (const part of state.parts.toReversed()) if (part.id && isAlive(part.id)) await endProcess(part.id, 20_000)
}

function status() {
  for (const name of ['demo', 'shop'] as const) {
    const state = runningState(profileOf(name))
    if (!state) {
      process.stdout.write(`${name}: stopped\n`)
      continue
    }
    process.stdout.write(
      `${name}: ${state.ready ? 'running' : 'starting'} at http://127.0.0.1:${profileOf(name).ports.web}\n`,
    )
    for (const p of state.parts) {
      process.stdout.write(
        `  ${p.name.padEnd(10)} ${p.state.padEnd(9)} port ${p.port}  since ` +
          `${p.since}${p.restarts ? `  started again ${p.restarts} ${p.restarts === 1 ? 'time' : 'times'}` : ''}\n`,
      )
    }
  }
}

/** Runs `work` while the profile's database is there: the running one, or one started for it. */
async function withDatabase<T>(profile: Profile, work: () => Promise<T>): Promise<T> {
  if (runningState(profile)) return work()
  if (!(await takeLock(profile)))
    throw new Refused(`${profile.name} is just starting or stopping. Try again in a moment.`)
  const logs = privateDir(`${profile.dir}/logs`)
  const part = new Part(
    databasePart(profile, 1),
    logs,
    () => {},
    () => {},
  )
  part.begin()
  try {
    for (const until = Date.now() + READY_WITHIN_MS; !part.isRunning;) {
      if (part.hasGivenUp || Date.now() > until)
        throw new Refused(`The database did not start; its log is ${logs}/database.log`)
      await pause(100)
    }
    return await work()
  } finally {
    await part.stop()
  }
}

/** Lets a running shop turn to the keys and the database that count now; resolves when its web servers do. */
async function renew(profile: Profile) {
  const webs = (of: State | null) => of?.parts.filter(p => p.name.startsWith('web')) ?? []
  const before = runningState(profile)
  if (!before) return
  const old = new Set(webs(before).map(p => p.id?.pid))
  process.kill(before.supervisor.pid, 'SIGHUP')
  const isNew = () => {
    const now = webs(runningState(profile))
    return now.length === old.size && now.every(p => p.state === 'running' && !old.has(p.id?.pid))
  }
  for (const until = Date.now() + RENEW_WITHIN_MS; !isNew(); await pause(100)) {
    if (Date.now() > until) throw new Refused(`The web server has not started anew; look into ${profile.dir}/logs.`)
  }
}

async function backupTo(profile: Profile, file: string) {
  if (existsIn('', file)) throw new Refused(`${file} is there already; choose another name.`)
  await withDatabase(profile, async () => {
    const { bytes, rows } = await backUp(profile, file)
    await recordBackup(profile, basename(file), bytes, false)
    say(`${file}: ${rows} rows, ${(bytes / 1e6).toFixed(1)} MB. Keys are not in it.`)
  })
}
async function restoreFrom(profile: Profile, file: string) {
  const turned = await withDatabase(profile, async () => {
    await secureUsers(profile, readKeys(profile).database)
    return restore(profile, file, say)
  })
  await renew(profile)
  say(
    `The shop works on ${turned.database} now. ${turned.before} stays for a week. Everybody signs in anew; ` +
      'waiting letters are held until the owner lets them go under Shop.',
  )
}
async function turn(profile: Profile) {
  if (!readIf(`${profile.dir}/keys/session`)) throw new Refused(`${profile.name} has no keys yet.`)
  turnKeys(profile)
  await withDatabase(profile, async () => {
    await secureUsers(profile, readKeys(profile).database)
    await rootSql(
      profile,
      `INSERT INTO logbook (piece_id, kind, says, happened_at, recorded_at)
          VALUES (
            NULL, 'people', 'The keys were turned; sessions sealed with the key before go on for a day',
            UTC_TIMESTAMP(3), UTC_TIMESTAMP(3)
          )`,
      currentDatabase(profile),
    )
  })
  await renew(profile)
  say('New keys. Who is signed in stays so; cookies sealed with the key before are taken for a day.')
}

function profileNamed(text: string | undefined): Profile {
  const name = text ?? 'shop'
  if (!isProfile(name)) throw new Refused(`There is no profile ${name}; it is shop or demo.`)
  return profileOf(name satisfies ProfileName)
}
const fileNamed = (text: string | undefined): string => {
  if (!text) throw new Refused('Which file? ./hantverk backup FILE, ./hantverk restore FILE')
  return resolve(process.env.HANTVERK_FROM ?? '.', text)
}

async function main([command = '', ...args]: string[]) {
  switch (command) {
    case 'run': {
      const [name, set = ''] = (args[0] ?? '').split(':')
      return run(profileNamed(name), set)
    }
    case 'wait':
      return waitFor(profileNamed(args[0]))
    case 'stop': {
      for (const name of args) await stop(profileNamed(name))
      return
    }
    case 'status':
      return status()
    case 'backup':
      return backupTo(profileNamed(args[1]), fileNamed(args[0]))
    case 'restore':
      return restoreFrom(profileNamed(args[1]), fileNamed(args[0]))
    case 'keys':
      return turn(profileNamed(args[0]))
    default:
      throw new Refused(`"${command}" is no command of ops/main.ts`)
  }
}

main(process.argv.slice(2)).catch((error: Error) => {
  say(error instanceof Refused || !process.env.HANTVERK_TRACE ? error.message : (error.stack ?? error.message))
  process.exitCode = 1
})
