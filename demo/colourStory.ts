/**
 * The demo's colour work: a shop's colourants read by the meter, chairs matched to an old one, a trap under the lamp,
 * a table that must be bleached, a pot that runs.
 */
import { connect } from 'node:net'
import {
  bestRecipes,
  clearCoat,
  type Colourant,
  colouredInner,
  innerOf,
  type Light,
  proposed,
  readOf,
  type SearchQuestion,
  type Share,
  type Spectrum,
  strengthOf,
} from '../core/colour'
import { COMMON_MIXTURES } from '../core/mixing'
import type { Caller } from './caller'
import { COLOURANTS, TARGETS, WOODS } from './colours'

interface Story {
  tove: Caller
  emil: Caller
  meter: string
  pieces: { chairs: number; sewingTable: number; hallBench: number }
  at: (ms: number) => Promise<void>
  today: (clock: string) => number
  ago: (days: number, clock: string) => number
}
interface ReadingLine {
  id: number
  spectrum: number[]
  species: string
}
interface Page {
  readings: ReadingLine[]
  colourants: {
    product_id: number
    name: string
    class: string
    lies: Colourant['lies']
    most_pct: number
    spectrum: number[]
  }[]
}
interface Pot {
  row_version: number
  left_g: number | null
  lines: {
    id: number
    turn: number
    product_id: number | null
    name: string
    wanted_g: number
    poured_g: number | null
  }[]
  contents: { product_id: number | null; g: number }[]
  lots: { id: number; product_id: number }[]
}

const LIGHTS: Light[] = ['d65', 'a', 'led']
const CLEAR = 'waterborne-polyurethane'
const surface = { clear: clearCoat(CLEAR), gloss: 'excluded' as const }
/** This wood takes more of every dye than the shop's first bands foretold. */
const TAKES_MORE = 1.12

/** Lays a sample under the simulated meter. */
const lay = (meter: string, spectrum: Spectrum) =>
  new Promise<void>((resolve, reject) => {
    const [host, port] = meter.split(':')
    const line = connect({ host: host!, port: Number(port) })
    line
      .setEncoding('utf8')
      .on('error', reject)
      .on('data', (said: string) => {
        line.destroy()
        if (said.startsWith('OK')) resolve()
        else reject(new Error(said))
      })
    line.on('connect', () => line.write(`SAMPLE ${spectrum.map(r => r.toFixed(5)).join(',')}\r\n`))
  })

export async function tellColour({ tove, emil, meter, pieces, at, today, ago }: Story) {
  const measure = async (name: string, spectrum: Spectrum, more: object) => {
    await lay(meter, spectrum)
    return (await emil.send<{ id: number }>('POST', '/api/readings/measure', { name, ...more })).id
  }
  await at(ago(20, '13:00'))
  const board = await measure('Birch board, bare', WOODS.birch, { role: 'wood', species: 'birch' })
  const truth = new Map<number, Colourant>()
  for (const c of COLOURANTS) {
    const { id: productId } = await tove.send<{ id: number }>('POST', '/api/products', {
      name: c.name,
      class: c.group,
      priceMinor: 42000,
    })
    await tove.send('POST', '/api/lots', { productId, code: `K-${300 + truth.size}`, amount: 500 })
    const pct = c.lies === 'wood' ? 20 : 30
    const made = { ...c, id: productId }
    truth.set(productId, made)
    const bandId = await measure(
      `Band of ${c.name}, ${pct} %`,
      readOf(colouredInner(WOODS.birch, [made], [pct]), { clear: null, gloss: 'excluded' }),
      { role: 'band', species: 'birch' },
    )
    await tove.send('POST', '/api/colourants', {
      productId,
      lies: c.lies,
      most_pct: c.most_pct,
      woodId: board,
      bandId,
      pct,
      coats: 1,
      wipe: 'normal',
    })
  }
  const seen = (wood: Spectrum, shares: readonly Share[], coats: number, finished: boolean) => {
    const set = shares.map(s => truth.get(s.id)!)
    return readOf(
      colouredInner(
        wood,
        set,
        shares.map(s => TAKES_MORE * strengthOf(s.pct, coats, 'normal')),
      ),
      finished ? surface : { clear: null, gloss: 'excluded' },
    )
  }

  await at(ago(2, '09:20'))
  const chairs = { pieceId: pieces.chairs, species: 'beech' }
  const { piece } = await tove.get<{ piece: { row_version: number } }>(`/api/pieces/${pieces.chairs}`)
  await tove.send('PATCH', `/api/pieces/${pieces.chairs}`, { rowVersion: piece.row_version, roomLight: 'a' })
  const woodId = await measure('New seat, beech, bare', WOODS.beech, { role: 'wood', ...chairs })
  const targetId = await measure('Seat of the old chair', TARGETS.chair.read, {
    role: 'target',
    clearCoat: 'shellac-blond',
    lightHistory: 'in-light',
    ...chairs,
  })
  await measure('Drawer front of the sewing table', TARGETS.drawer.read, {
    role: 'target',
    clearCoat: CLEAR,
    lightHistory: 'in-light',
    species: 'beech',
    pieceId: pieces.sewingTable,
  })
  await measure('Sewing table, new drawer front, bare', WOODS.beech, {
    role: 'wood',
    species: 'beech',
    pieceId: pieces.sewingTable,
  })
  await measure('Hall bench, bare', WOODS.walnut, { role: 'wood', species: 'walnut', pieceId: pieces.hallBench })
  await measure('Oak panelling of the hall', TARGETS.panelling.read, {
    role: 'target',
    clearCoat: CLEAR,
    species: 'oak',
    pieceId: pieces.hallBench,
  })

  const { steps } = await emil.get<{ steps: { key: string; kind: string }[] }>(`/api/pieces/${pieces.chairs}/plan`)
  const dyes = steps.filter(s => s.kind === 'dye')
  const page = await emil.get<Page>(`/api/colour?piece=${pieces.chairs}`)
  const question: SearchQuestion = {
    substrates: [innerOf(page.readings.find(r => r.id === woodId)!.spectrum, { clear: null, gloss: 'excluded' })],
    target: page.readings.find(r => r.id === targetId)!.spectrum,
    atMost: 3,
    lights: LIGHTS,
    observer: '10',
    coats: dyes.length,
    wipe: 'normal',
    surface,
    colourants: page.colourants
      .filter(c => c.class === 'water-dye')
      .map(c => ({
        id: c.product_id,
        name: c.name,
        group: c.class,
        lies: c.lies,
        most_pct: c.most_pct,
        k: c.spectrum,
      })),
  }
  const recipe = proposed(bestRecipes(question))!
  const { id: recipeId } = await emil.send<{ id: number }>('POST', '/api/recipes', {
    name: 'Beech seats to the old chair',
    pieceId: pieces.chairs,
    woodId,
    targetId,
    shares: recipe.shares,
    coats: dyes.length,
    wipe: 'normal',
    clearCoat: CLEAR,
    lights: LIGHTS,
    note: 'Old chair kept at the bench until all five are done.',
  })

  const { id: potId } = await emil.send<{ id: number }>('POST', '/api/batches', {
    kind: 'recipe',
    recipeId,
    total_g: 240,
    pieceId: pieces.chairs,
    smallest_g: 0.1,
  })
  const pot = () => emil.get<Pot>(`/api/batches/${potId}`)
  const act = async (kind: string, more: object = {}) =>
    emil.send('POST', `/api/batches/${potId}/acts`, { kind, rowVersion: (await pot()).row_version, ...more })
  const pourAll = async () => {
    for (const l of (await pot()).lines.filter(x => x.poured_g === null))
      await act('pour', {
        lineId: l.id,
        lotId: (await pot()).lots.find(x => x.product_id === l.product_id)?.id ?? null,
        poured_g: Math.round(l.wanted_g * 10) / 10,
      })
    await act('mixed')
  }
  const inPot = async (): Promise<Share[]> => {
    const { contents } = await pot()
    const total = contents.reduce((s, c) => s + c.g, 0)
    return contents.flatMap(c => (c.product_id ? [{ id: c.product_id, pct: (100 * c.g) / total }] : []))
  }
  await at(ago(2, '10:10'))
  await pourAll()
  const record = {
    grit: 180,
    scale: 'P',
    conditioner: 'none',
    applicator: 'cloth',
    dwell_min: 3,
    wipe: 'normal',
    temperature_C: 20,
    lightHistory: 'fresh',
  }
  const first = await measure('Seats, try 1', seen(WOODS.beech, await inPot(), dyes.length, true), {
    role: 'band',
    clearCoat: CLEAR,
    ...chairs,
  })
  await act('try', { readingId: first })
  await act('correct', { left_g: 215 })
  await at(ago(2, '11:00'))
  await pourAll()
  const second = await measure('Seats, try 2', seen(WOODS.beech, await inPot(), dyes.length, true), {
    role: 'band',
    clearCoat: CLEAR,
    ...chairs,
  })
  await act('try', { readingId: second })
  await act('left', { left_g: 180, place: 'Shelf 3' })

  const last = steps.findLast(s => s.kind === 'coat')!
  const band = (stepKey: string, readingId: number, coats: number, clear: string | null) =>
    emil.send<{ id: number }>('POST', `/api/pieces/${pieces.chairs}/bands`, {
      stepKey,
      readingId,
      recipeId,
      batchId: potId,
      coats,
      clearCoat: clear,
      ...record,
    })
  await at(ago(1, '09:00'))
  await band('bare', await measure('Panel, bare', WOODS.beech, { role: 'band', ...chairs }), 0, null)
  for (const [i, s] of dyes.entries())
    await band(
      s.key,
      await measure(`Panel, dye coat ${i + 1}, bare`, seen(WOODS.beech, await inPot(), i + 1, false), {
        role: 'band',
        ...chairs,
      }),
      i + 1,
      null,
    )
  await at(ago(1, '15:00'))
  const done = await band(last.key, second, dyes.length, CLEAR)
  await tove.send('PATCH', `/api/bands/${done.id}`, {
    kind: 'approve',
    rowVersion: 1,
    by: 'Inga-Lill Fors',
    light: 'd65',
  })

  await at(today('10:05'))
  const { by, pot_min, ingredients } = COMMON_MIXTURES.find(m => m.slug === 'urethane')!
  const { id: mixId } = await emil.send<{ id: number }>('POST', '/api/batches', {
    kind: 'mix',
    name: 'Two-part urethane, 4:2:1',
    by,
    ingredients,
    wanted: { total_ml: 350 },
    smallest_g: 0.1,
    pot_min,
  })
  const mix = () => emil.get<Pot>(`/api/batches/${mixId}`)
  for (const l of (await mix()).lines)
    await emil.send('POST', `/api/batches/${mixId}/acts`, {
      kind: 'pour',
      rowVersion: (await mix()).row_version,
      lineId: l.id,
      lotId: null,
      poured_g: Math.round(l.wanted_g * 10) / 10,
    })
  await emil.send('POST', `/api/batches/${mixId}/acts`, { kind: 'mixed', rowVersion: (await mix()).row_version })
}
