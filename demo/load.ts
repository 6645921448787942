/**
 * Loads the demo shop through the running server's own API, as its people would have worked it. Usage: load.ts BASE
 * CLIMATE MAILS METER
 */
import { Caller, signIn, tokenTo } from './caller'
import { planAndAsk } from './agree'
import { ago, at, inAir, open, people, today } from './clock'
import { tellColour } from './colourStory'
import { loggerFile } from './logger'
import { COMPOSED } from './composed'
import { GROUNDS } from './grounds'
import { type DemoPiece, LAST, PIECES as OTHERS } from './pieces'
import { renewedAfterTwoYears, wentHome } from './home'
import { askMore } from './questions'
import { airOfRooms, furnish } from './rooms'
import { OWNER, PASSWORD, PEOPLE, PIN } from './shop'
import { examine, showAfter, takeIn } from './takeIn'
import { careOfTheShop, lastOfTheStore, stock } from './store'
import { act, morning, workTo } from './work'

const [base = '', climate = '', mails = '', meter = ''] = process.argv.slice(2)
const PIECES: readonly DemoPiece[] = [...OTHERS, ...COMPOSED, ...GROUNDS, ...LAST]

const STORY: Record<NonNullable<DemoPiece['story']>, (id: number) => Promise<void>> = {
  'planned': async () => {},
  'coated': id => workTo(id, 'coat', today('09:00')),
  'oiled': id => workTo(id, 'oil-on', today('09:00')),
  'asked': async () => {},
  'asked-question': async id => {
    const piece = PIECES[id - 1]!
    const client = new Caller(base)
    const token = await tokenTo(mails, piece.client[1])
    await at(today('08:52'))
    await client.send('POST', `/api/answer/${token}`, {
      asks: 'Do the arms come off, and will they stay numbered?',
    })
  },
  'approved': async () => {},
  'asked-expired': async () => {},
  'declined': async () => {},
  'handed-over': async id => {
    await workTo(id, null, ago(5, '15:00'))
    const { piece } = await people.sara.get<{ piece: { row_version: number } }>(`/api/pieces/${id}`)
    await at(ago(4, '14:10'))
    await people.sara.send('POST', `/api/pieces/${id}/hand-over`, {
      rowVersion: piece.row_version,
      to: 'Greta Almqvist',
      remind: true,
    })
  },
  'ready': id => workTo(id, null, today('09:00')),
  'curing': id => workTo(id, 'rub-out', today('09:00')),
  'dwelling': async id => {
    await workTo(id, 'strip', today('09:00'))
    await morning(id, 'strip', '10:09', '10:18')
  },
  'oil-on': async id => {
    await workTo(id, 'oil-on', today('09:00'))
    await morning(id, 'oil-on', '09:48', '10:01')
  },
  'conditioned': async id => {
    await workTo(id, 'conditioner', today('09:00'))
    await morning(id, 'conditioner', '09:20', '09:36')
  },
  'dyed': async id => {
    await workTo(id, 'dye', today('09:00'))
    await morning(id, 'dye', '09:40', '09:58')
  },
  'drying': async id => {
    await workTo(id, 'coat', today('09:00'))
    await morning(id, 'coat', '09:05', '09:25')
  },
  'gate-open': id => workTo(id, 'gate', today('09:30')),
  'lacquer-next': id => workTo(id, 'coat', today('09:30')),
  'gate-failed': async id => {
    await workTo(id, 'gate', today('09:30'))
    await inAir(today('08:10'))
    await act(id, 'start', 'gate')
    await at(today('08:16'))
    await act(id, 'finish', 'gate', { gate: 'fail', note: 'halos round the runs' })
  },
}

async function main() {
  people.ingrid = new Caller(base)
  await people.ingrid.send('POST', '/api/first-owner', OWNER)
  for (const [name, login, role] of PEOPLE) {
    await people.ingrid.send('POST', '/api/people', { name, login, role, password: PASSWORD })
    people[login] = await signIn(base, login, PASSWORD)
  }
  for (const caller of Object.values(people))
    await caller.send('PUT', '/api/session/pin', { password: PASSWORD, pin: PIN })
  await furnish(people.ingrid)
  await at(ago(25, '08:00'))
  await stock()
  if (climate)
    await fetch(`${climate}/set`, { method: 'POST', body: JSON.stringify({ temperature_C: 20.5, rh: 0.46 }) })
  for (const p of PIECES) {
    await at(ago(p.begun ?? 0, (p.begun ?? 0) === 0 ? '08:20' : '09:10'))
    const id = await takeIn(p)
    await examine(id, p)
    if (p.choice) await planAndAsk(id, p)
    if (p.story) await STORY[p.story](id)
    if (p.after) await showAfter(id, p)
    console.log(`${id} ${p.name}`)
  }
  const pieceOf = (name: string) => PIECES.findIndex(p => p.name === name) + 1
  if (meter)
    await tellColour({
      ...people,
      ...{ meter, at, today, ago },
      pieces: {
        chairs: pieceOf('Five chairs to match an old one'),
        sewingTable: pieceOf('Sewing table'),
        hallBench: pieceOf('Hall bench'),
      },
    })
  await askMore({ ...people, at, today, pieceOf })
  await wentHome(pieceOf)
  await renewedAfterTwoYears()
  await lastOfTheStore(pieceOf)
  await careOfTheShop()
  await airOfRooms(people.ingrid)
  await inAir(open.toMillis())
  await people.emil.send('POST', '/api/air-log', { text: loggerFile(open) })
}

main().catch(error => {
  console.error(error)
  process.exit(1)
})
