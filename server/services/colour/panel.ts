import { finishLayer } from '#core/build'
import { lookOf } from '#core/acts'
import {
  deltaE00,
  flat,
  labOfSpectrum,
  labOf,
  type Look,
  panelStates,
  type PlannedColour,
  shiftInLight,
  type Spectrum,
  viewingOf,
  withAbsorption,
} from '#core/colour'
import { speciesOf } from '#core/wood'
import { db, type Db } from '../../database/db'
import { readPiece } from '../piece/read'
import { readPlan } from '../plan/rows'
import { readShop } from '../shop/rows'
import { readBands } from './bandRows'
import { onWood, readColourants } from './colourants'
import { innerOfReading, type ReadingRow, READINGS, withSpectrum } from './readings'
import { readRecipe, type RecipeRow, type ShareLine, sharesOnly } from './recipes'

/** The newest of a piece's readings in a role. */
const latest = (readings: readonly ReadingRow[], role: ReadingRow['role'], zone?: ReadingRow['zone']) =>
  readings.find(r => r.role === role && (!zone || r.zone === zone)) ?? null

/** The piece's newest recipe of each class of colour. */
async function recipesOf(on: Db, id: number): Promise<(RecipeRow & { shares: ShareLine[] })[]> {
  const ids = await on.rows<{ id: number }>('SELECT MAX(id) AS id FROM recipe WHERE piece_id = :id GROUP BY class', {
    id,
  })
  return Promise.all(ids.map(r => readRecipe(on, r.id)))
}

const daylight = () => viewingOf('d65')
const away = (a: Spectrum, b: Spectrum) => deltaE00(labOf(a, daylight()), labOf(b, daylight()))

/** How far ahead the client is shown: by then the coat has yellowed and fresh wood has shifted. */
const YEARS = 10

/**
 * The steps of one face, so that faces that go another way have no coats in this panel: the first face that is
 * coloured, else coated.
 */
function stepsOfLead<T extends { look: Look | null; faces: readonly number[] }>(steps: readonly T[]): T[] {
  const lead = (steps.find(s => s.look === 'colour') ?? steps.find(s => s.look !== null))?.faces[0]
  return lead === undefined ? [] : steps.filter(s => s.faces.includes(lead))
}

/** The step panel: each state that changes the look, foretold and measured, and where the work stands now. */
export async function panelPage(id: number) {
  const file = await readPiece(db(), id)
  const [plan, readings, bands, recipes, colourants] = [
    await readPlan(db(), file),
    withSpectrum(await db().rows<ReadingRow>(`${READINGS} AND r.piece_id = :id ORDER BY r.id DESC`, { id })),
    await readBands(db(), id),
    await recipesOf(db(), id),
    await readColourants(db()),
  ]
  const wood = latest(readings, 'wood', 'heartwood') ?? latest(readings, 'wood')
  const target = latest(readings, 'target')
  const set = onWood(colourants, wood?.species ?? 'unknown')
  const planned = recipes.map((r): PlannedColour => ({
    group: r.class,
    wipe: r.wipe,
    shares: sharesOnly(r.shares),
    set: set.filter(k => r.shares.some(s => s.id === k.id)),
  }))
  const steps = stepsOfLead(plan.steps.filter(s => s.state !== 'skipped').map(s => ({ ...s, look: lookOf(s) })))
  const inner = wood ? innerOfReading(wood) : flat(0.5)
  const gloss = target?.gloss ?? 'excluded'
  const states = panelStates(steps, inner, planned, gloss)
  const done = new Set(steps.filter(s => s.state === 'done').map(s => s.key))
  const isBare = steps
    .slice(
      0,
      steps.findIndex(s => s.look !== null),
    )
    .every(s => s.state === 'done')
  const reached = states.findLastIndex(s => (s.key === 'bare' ? isBare : done.has(s.key)))
  const coatsOf = (kind: string) =>
    new Set(steps.filter(s => s.product === kind && s.look !== null).map(s => s.coat)).size
  const lines = states.map((s, i) => {
    const mine = bands.filter(b => b.step_key === s.key)
    const predicted = wood ? s.predicted : null
    return {
      key: s.key,
      title: s.title,
      why: wood ? s.why : ('no-wood' as const),
      coat: s.coat,
      underFinish: s.underFinish,
      coats: s.coats,
      now: i === reached,
      predicted,
      toTarget: predicted && target ? away(predicted, target.spectrum) : null,
      bands: mine.map(b => ({
        ...b,
        off: b.spectrum && predicted ? away(b.spectrum, predicted) : null,
        toTarget: b.spectrum && target ? away(b.spectrum, target.spectrum) : null,
        lab: b.spectrum ? labOfSpectrum(b.spectrum) : null,
      })),
    }
  })
  const fresh = wood?.light_history !== 'in-light'
  const species = wood?.species ?? 'unknown'
  return {
    wood,
    target,
    readings,
    recipes,
    lines,
    photographs: (
      await db().rows<{ address: string }>('SELECT address FROM photograph WHERE piece_id = :id ORDER BY id DESC', {
        id,
      })
    ).map(p => p.address),
    finish: finishLayer(file.choice?.buildUps[0].layers ?? [])?.product ?? null,
    batches: await db().rows<{ id: number; name: string }>(
      `SELECT id, name
          FROM batch
          WHERE piece_id = :id AND recipe_id IS NOT NULL AND mixed_at IS NOT NULL
          ORDER BY id DESC`,
      { id },
    ),
    coatsDiffer: recipes
      .filter(r => coatsOf(r.class) > 0 && coatsOf(r.class) !== r.coats)
      .map(r => ({ id: r.id, made: r.coats, planned: coatsOf(r.class) })),
    later:
      wood && states.at(-1)!.underFinish
        ? {
            years: YEARS,
            spectrum: panelStates(
              steps,
              fresh ? withAbsorption(inner, shiftInLight(species)) : inner,
              planned,
              gloss,
              YEARS,
            ).at(-1)!.predicted,
          }
        : null,
    shifts:
      fresh && Math.abs(shiftInLight(species) - 1) > 0.12
        ? { species: speciesOf(species).name, darker: shiftInLight(species) > 1 }
        : null,
    lights: { room: file.piece.room_light, shop: (await readShop()).light },
    lightDiffers: wood !== null && target !== null && wood.light_history !== target.light_history,
  }
}
