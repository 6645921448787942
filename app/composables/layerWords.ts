import { actOf, asChosen } from '#core/acts'
import type { BuildUp, Layer } from '#core/build'
import { taken } from '#core/materials'
import { roundsOf } from '#core/plan'
import type { SurfaceDrawn } from '#core/section'
import { sumOf } from '#core/units'
import type { ComposePage } from './composing'

/** How layers are called while they are composed. */
export function useLayerWords(on: {
  page: Ref<ComposePage | null>
  buildUp: Ref<BuildUp | null>
  shown: Ref<SurfaceDrawn | null>
  faces: Ref<readonly { id: number; name: string }[]>
}) {
  const context = computed(() => on.page.value?.context ?? null)
  /** rounds where nobody says how many */
  const usualOf = (l: Layer) =>
    on.buildUp.value && context.value
      ? roundsOf({ ...l, coats: null, film_um: null }, on.buildUp.value, context.value)
      : 1
  function nameOf(l: Layer): string {
    const m = context.value && taken(context.value.shelf, l)
    if (!m) return `${actOf({ kind: l.act }).called}, ${w('surface.notChosen')}`
    return m.name.slice(0, 1).toUpperCase() + m.name.slice(1)
  }
  const whyOut = (layer: number) => on.page.value?.out.find(o => o.layer === layer)?.why ?? null
  /** "stain · 2 × · 34 µm · lid, top" */
  function saysOf(l: Layer): string {
    if (!on.buildUp.value || !context.value) return ''
    const rounds = roundsOf(l, on.buildUp.value, context.value)
    const um = sumOf(on.shown.value?.films.filter(f => f.layer === l.id) ?? [], f => f.um)
    const faces = on.faces.value.filter(f => l.faces?.includes(f.id)).map(f => f.name)
    const out = whyOut(l.id)
    return [
      l.use ? w(`surface.uses.${l.use}`) : actOf({ kind: l.act }).called,
      rounds > 1 ? `${rounds} ×` : '',
      um ? `${Math.round(um)} µm` : '',
      asChosen(l.fields).slice(2),
      faces.join(', '),
      out ? w('surface.staysOut', { why: out }) : '',
    ]
      .filter(Boolean)
      .join(' · ')
  }
  return { usualOf, nameOf, saysOf, whyOut }
}
