/** One of the shop's people, calling the server's API with a cookie. */
export class Caller {
  private readonly jar = new Map<string, string>()
  constructor(private readonly base: string) {}

  private async call<T>(
    method: string,
    path: string,
    body?: BodyInit,
    headers: Record<string, string> = {},
  ): Promise<T> {
    const write: Record<string, string> =
      method === 'GET' ? {} : { 'origin': this.base, 'idempotency-key': crypto.randomUUID() }
    const reply = await fetch(this.base + path, {
      method,
      body,
      headers: { ...headers, ...write, cookie: [...this.jar.values()].join('; ') },
    })
    for (const set of reply.headers.getSetCookie()) this.jar.set(set.split('=')[0]!, set.split(';')[0]!)
    const text = await reply.text()
    if (!reply.ok) throw new Error(`${method} ${path}: ${reply.status} ${text}`)
    return JSON.parse(text) as T
  }

  get = <T>(path: string) => this.call<T>('GET', path)
  send = <T = unknown>(method: string, path: string, body: unknown) =>
    this.call<T>(method, path, JSON.stringify(body), { 'content-type': 'application/json' })
  picture<T = unknown>(path: string, data: Buffer): Promise<T> {
    const form = new FormData()
    form.append('picture', new Blob([new Uint8Array(data)], { type: 'image/png' }), 'piece.png')
    return this.call<T>('POST', path, form)
  }
}

export async function signIn(base: string, login: string, password: string): Promise<Caller> {
  const caller = new Caller(base)
  await caller.send('POST', '/api/session', { login, password })
  return caller
}

/** The token of the newest mail to this address; mail goes out within seconds. */
export async function tokenTo(mails: string, address: string): Promise<string> {
  for (let tries = 0; tries < 60; tries++) {
    const all = (await (await fetch(`${mails}/mails`)).json()) as { to: string; text: string }[]
    const token = /answer\/([\w-]{43})/.exec(all.find(m => m.to.includes(address))?.text ?? '')?.[1]
    if (token) return token
    await new Promise(done => setTimeout(done, 500))
  }
  throw new Error(`No mail reached ${address}`)
}
