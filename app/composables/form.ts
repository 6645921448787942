import { API, type RouteKey } from '#shared/api'

type Loose<T> = T extends readonly (infer U)[]
  ? Loose<U>[]
  : T extends object
    ? { [K in keyof T]: Loose<T[K]> }
    : T extends number
      ? T | null
      : T
type WithBody = { [K in WriteKey]: Asking<K> extends { body?: object } ? K : never }[WriteKey]
/** What a route carries, as the registry says. */
export type BodyOf<K extends WriteKey> = Asking<K> extends { body?: infer B } ? B : never
/** A body while it is being typed: what is a number at last may be empty. */
export type Draft<K extends WriteKey> = Loose<BodyOf<K>>
type Rest<K extends RouteKey> = Omit<Asking<K>, 'body'>

/** The first thing that is not right of each field, by its path ("parts.0.name"). */
function messagesOf(issues: readonly { path: readonly PropertyKey[]; message: string }[]): Record<string, string> {
  const messages: Record<string, string> = {}
  for (const issue of issues) messages[issue.path.join('.')] ??= issue.message
  return messages
}

/**
 * A form over the schema of a route: what was typed stays until the server took it, and messages stand beside their
 * fields, whether the page found them or the server.
 */
export function useForm<K extends WithBody, const B extends Draft<K>>(key: K, blank: () => B) {
  const draft = ref(blank()) as unknown as Ref<Draft<K>>
  const errors = ref<Record<string, string>>({})
  const busy = ref(false)
  const schema = (
    API[key] as {
      body: { safeParse: (body: unknown) => ReturnType<(typeof API)['POST /api/pieces']['body']['safeParse']> }
    }
  ).body
  let asked = false
  /** what was sent beside what was typed, when it was last tried */
  let beside: object = {}
  /** Looks at what was typed; true when all of it can be sent. */
  function check(): boolean {
    const result = schema.safeParse({ ...(draft.value as object), ...beside })
    errors.value = result.success ? {} : messagesOf(result.error.issues)
    return result.success
  }
  watch(draft, () => asked && check(), { deep: true })
  function say(message: string) {
    useNotes().show(message, 'stop')
    void nextTick(() => document.querySelector<HTMLElement>('[aria-invalid=true]')?.focus())
  }
  /** Sends it; null when something is not right yet. `more` is added to what was typed. */
  async function submit(rest: Rest<K>, more: Partial<BodyOf<K>> = {}): Promise<AnswerOf<K> | null> {
    if (busy.value) return null
    asked = true
    beside = more
    if (!check()) {
      say(Object.values(errors.value)[0] ?? '')
      return null
    }
    busy.value = true
    try {
      const answer = await sendOnce(key, { ...rest, body: { ...(draft.value as object), ...more } } as never)
      // what is emptied for the next one is not wrong yet
      asked = false
      return answer as AnswerOf<K>
    } catch (error) {
      const { message, fields } = problem(error)
      errors.value = fields ?? {}
      say(message)
      await sendAway(error)
      return null
    } finally {
      busy.value = false
    }
  }
  function reset() {
    asked = false
    errors.value = {}
    draft.value = blank() as Draft<K>
  }
  return { draft, errors, busy, submit, reset }
}
