import type { Finish } from '#core/materials'
import type { OwnRoute } from '#core/piece'

export type MayAsk = AnswerOf<'GET /api/pieces/:id/asking'>
/** Money is typed in whole units of the shop's currency. */
interface HardwareRow {
  on: boolean
  replace: number | null
  match: number | null
  days: number | null
}
interface WorkRow {
  says: string
  price: number | null
  days: number | null
}
const empty = () => ({
  ...{ words: '', days: 14 as number | null, surface: true, found: false, dueOn: null as string | null },
  ...{
    beside: [null, null] as (Finish | OwnRoute | null)[],
    work: [] as WorkRow[],
    hardware: {} as Record<number, HardwareRow>,
  },
  ...{ most: null as number | null, mostAsked: false },
  ...{ bands: [] as number[], photographs: [] as string[] },
})
const minor = (units: number | null) => Math.round((units ?? 0) * 100)

/** A question being put together: what was chosen of what may be asked, and the body that asks it. */
export function useAsking(may: () => MayAsk) {
  const form = reactive(empty())
  watch(
    may,
    now => {
      // drafted before what was agreed is passed
      if (now.beyond && form.most === null)
        Object.assign(form, { most: Math.ceil(now.beyond.foreseen_minor / 100), mostAsked: true })
      for (const i of now.hardware) form.hardware[i.id] ??= { on: false, replace: null, match: null, days: null }
    },
    { immediate: true },
  )
  function bodyOf(can: MayAsk) {
    const surface = form.surface && can.surface
    return {
      ...{ words: form.words, days: form.days ?? 14, surface, found: form.found && can.found !== null },
      beside: surface ? form.beside.flatMap(b => ([...can.beside, ...can.ways].find(x => x === b) ? [b!] : [])) : [],
      work: form.work.map(x => ({ says: x.says, priceMinor: minor(x.price), days: x.days ?? 0 })),
      hardware: can.hardware.flatMap(({ id: itemId }) => {
        const its = form.hardware[itemId]
        if (!its?.on) return []
        const prices = { replace: minor(its.replace), match: minor(its.match), leave: 0 }
        return [{ itemId, prices, days: its.days ?? 0 }]
      }),
      bands: form.bands.filter(b => can.bands.some(x => x.id === b)),
      mostMinor: form.mostAsked && can.agreed ? minor(form.most) : null,
      ...{ dueOn: form.dueOn, photographs: form.photographs },
    }
  }
  const clear = () => void Object.assign(form, empty())
  return { form, body: () => bodyOf(may()), clear }
}
/** In a list, or out of it. */
export const turned = <T>(list: readonly T[], one: T, on: boolean | undefined): T[] =>
  on ? [...list.filter(x => x !== one), one] : list.filter(x => x !== one)
