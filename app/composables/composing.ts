import {
  type BuildUp,
  changeLayer,
  type Choice,
  freshLayerId,
  type Layer,
  moveLayer,
  putIn,
  takeOut,
} from '#core/build'
import type { Context } from '#core/context'
import type { Asking } from '#core/ground'
import { type Recomposing, replaceBuildUp } from '#core/plan'
import type { ComposeAnswer, ComposeQuestion } from '~/workers/compose.worker'

type Answered = AnswerOf<'GET /api/pieces/:id/build-up'>
/** What is composed on. The context is plain data; on its way as JSON its pairs are told as lists. */
export type ComposePage = Omit<Answered, 'context' | 'choice' | 'asking' | 'plan'> & {
  context: Context
  choice: Choice | null
  asking: Asking
  plan: Pick<Recomposing, 'past' | 'ahead' | 'keys'>
}
/** The shop's own product that a layer takes; null: any of its class. */
export const productOf = (page: Pick<ComposePage, 'products'> | null, { label }: Pick<Layer, 'label'>) =>
  label === null ? null : (page?.products.find(p => p.label === label) ?? null)

/** A surface while it is being composed: its layers, what was done last, and what takes it back. */
export function useComposing(page: Ref<ComposePage | null>) {
  const choice = shallowRef<Choice | null>(null)
  const past = shallowRef<Choice[]>([])
  const at = ref(0)
  const chosen = ref<number | null>(null)
  const buildUp = computed(() => choice.value?.buildUps[at.value] ?? choice.value?.buildUps[0] ?? null)
  function begin() {
    choice.value = page.value?.choice ?? null
    past.value = []
    chosen.value = null
  }
  watch(() => page.value?.rowVersion, begin, { immediate: true })
  function set(next: BuildUp) {
    if (!choice.value || next === buildUp.value) return
    past.value = [...past.value, choice.value]
    choice.value = replaceBuildUp(choice.value, next)
  }
  const act = (change: (b: BuildUp) => BuildUp) => buildUp.value && set(change(buildUp.value))
  return {
    choice,
    at,
    chosen,
    buildUp,
    changed: computed(() => past.value.length > 0),
    begin,
    undo() {
      choice.value = past.value.at(-1) ?? choice.value
      past.value = past.value.slice(0, -1)
    },
    put(place: number, given: Omit<Layer, 'id'>) {
      if (!choice.value) return
      const id = freshLayerId(choice.value)
      act(b => putIn(b, place, { ...given, id }))
      chosen.value = id
    },
    change: (id: number, change: Partial<Omit<Layer, 'id'>>) => act(b => changeLayer(b, id, change)),
    move: (id: number, by: number) => act(b => moveLayer(b, id, by)),
    out(id: number) {
      act(b => takeOut(b, id))
      if (chosen.value === id) chosen.value = null
    },
    replace: (next: BuildUp) => set(next),
    end: (ending: BuildUp['ending']) => act(b => ({ ...b, ending })),
  }
}

/** Takes what was composed: the plan follows, and what was changed by hand is made again but for what is left. */
export function useTaking(page: Ref<ComposePage | null>, buildUp: Ref<BuildUp | null>, after: () => Promise<unknown>) {
  const busy = ref(false)
  /** keys of steps whose change by hand is not made again */
  const leave = ref<string[]>([])
  watch(
    () => page.value?.rowVersion,
    () => (leave.value = []),
  )
  async function take(id: number) {
    if (!buildUp.value || !page.value) return
    busy.value = true
    const { id: buildUpId, ending, layers } = buildUp.value
    const done = await send('PUT /api/pieces/:id/build-up', {
      id,
      body: {
        rowVersion: page.value.rowVersion,
        buildUpId,
        ending,
        layers: layers.map(({ label, faces, ...layer }) => ({
          ...layer,
          productId: productOf(page.value, { label })?.id ?? null,
          faces: faces && [...faces],
        })),
        leave: leave.value,
      },
    })
    busy.value = false
    if (done) {
      const lost = done.lost.map(c => c.title)
      const kept = done.kept.filter(c => !leave.value.includes(c.key)).length
      useNotes().show(lost.length ? w('surface.lost', { what: lost.join(', ') }) : w('surface.taken', { n: kept }))
    }
    await after()
  }
  return { busy, leave, take }
}

/** Asks a worker; what is answered to a question that was overtaken is dropped. */
export function useComposeWorker() {
  let worker: Worker | null = null
  let asked = 0
  const waiting = new Map<number, (answer: ComposeAnswer) => void>()
  onMounted(() => {
    worker = new Worker(new URL('../workers/compose.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = (event: MessageEvent<ComposeAnswer>) => {
      waiting.get(event.data.n)?.(event.data)
      waiting.delete(event.data.n)
    }
  })
  onUnmounted(() => worker?.terminate())
  return (question: Omit<ComposeQuestion, 'n'>) =>
    new Promise<ComposeAnswer>(done => {
      const n = ++asked
      waiting.set(n, done)
      // workers take plain data, no proxies
      worker?.postMessage(JSON.parse(JSON.stringify({ ...question, n })))
    })
}
