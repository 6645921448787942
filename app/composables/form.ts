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
 * What is typed goes to a route over its schema: it stays until the server took it, and messages stand beside their
 * fields, whether the page found them or the server. `body`: what is typed, as the route takes it.
 */
export function useSubmit<K extends WithBody>(key: K, body: () => object) {
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
    const result = schema.safeParse({ ...body(), ...beside })
    errors.value = result.success ? {} : messagesOf(result.error.issues)
    return result.success
  }
  watch(body, () => asked && check(), { deep: true })
  /** Says what is wrong; the first wrong field of the form that was sent is the next to be typed in. */
  function say(message: string, form: Element | null | undefined) {
    useNotes().show(message, 'stop')
    void nextTick(() => (form ?? document).querySelector<HTMLElement>('[aria-invalid=true]')?.focus())
  }
  /** Sends it; null when something is not right yet. `more` is added to what was typed. */
  const submit = (rest: Rest<K>, more: Partial<BodyOf<K>> = {}): Promise<AnswerOf<K> | null> =>
    sendBy(more, (asking: object) => sendOnce(key, asking as never), rest)
  /** The same, or it is kept on this device until there is a line. */
  const submitOrKeep = (more: Partial<BodyOf<K>>, doing: Doing) =>
    sendBy(more, asking => doOrKeep(key, asking as Record<string, unknown>, doing), {} as Rest<K>)
  async function sendBy<R>(
    more: Partial<BodyOf<K>>,
    go: (asking: object) => Promise<R>,
    rest: Rest<K>,
  ): Promise<R | null> {
    if (busy.value) return null
    const form = document.activeElement?.closest('form')
    asked = true
    beside = more
    if (!check()) {
      say(Object.values(errors.value)[0] ?? '', form)
      return null
    }
    busy.value = true
    try {
      const answer = await go({ ...rest, body: { ...body(), ...more } })
      // what is emptied for the next one is not wrong yet
      asked = false
      return answer
    } catch (error) {
      const { message, fields } =
        error instanceof Unkept ? { message: error.message, fields: undefined } : problem(error)
      errors.value = fields ?? {}
      say(message, form)
      await sendAway(error)
      return null
    } finally {
      busy.value = false
    }
  }
  function forget() {
    asked = false
    errors.value = {}
  }
  return { errors, busy, submit, submitOrKeep, forget }
}

/** A form: a draft of a route's body, typed field by field. */
export function useForm<K extends WithBody, const B extends Draft<K>>(key: K, blank: () => B) {
  const draft = ref(blank()) as unknown as Ref<Draft<K>>
  const { forget, ...sending } = useSubmit(key, () => draft.value as object)
  function reset() {
    forget()
    draft.value = blank() as Draft<K>
  }
  return { draft, reset, ...sending }
}
