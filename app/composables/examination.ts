export type Examination = AnswerOf<'GET /api/pieces/:id/examination'>
export type ExamFace = Examination['faces'][number]
export type ExamFinding = Examination['findings'][number]
export type ExamVerdict = Examination['verdicts'][number]
export type ExamItem = Examination['items'][number]
export type WalkQuestion = NonNullable<Examination['walk']['next']>

interface Undoable {
  pieceId: number
  says: string
  back: () => Promise<unknown>
}
/** What may be taken back on this tablet, newest last. The log keeps both the act and its taking back. */
const undoable = ref<Undoable[]>([])

/** Acts on findings, each with its way back. */
export function useFindingActs(pieceId: () => number, load: () => Promise<void>) {
  const remember = (says: string, back: Undoable['back']) => {
    undoable.value = [...undoable.value.slice(-19), { pieceId: pieceId(), says, back }]
  }
  const newest = () => undoable.value.findLast(u => u.pieceId === pieceId())
  const versionOf = async (id: number) => {
    const page = await call('GET /api/pieces/:id/examination', { id: pieceId() })
    return page.findings.find(f => f.id === id)?.rowVersion
  }
  const patch = (f: { id: number; rowVersion: number }, change: Record<string, unknown>) =>
    send('PATCH /api/findings/:id', { id: f.id, body: { rowVersion: f.rowVersion, ...change } })

  async function add(finding: BodyOf<'POST /api/pieces/:id/findings'>, says: string): Promise<number | null> {
    const made = await send('POST /api/pieces/:id/findings', { id: pieceId(), body: finding })
    if (!made) return null
    remember(says, async () => send('DELETE /api/findings/:id', { id: made.id }))
    await load()
    return made.id
  }
  async function change(f: ExamFinding, next: Record<string, unknown>, says: string): Promise<boolean> {
    const was = Object.fromEntries(Object.keys(next).map(key => [key, f[key as keyof ExamFinding]]))
    if (!(await patch(f, next))) {
      await load()
      return false
    }
    remember(says, async () => {
      const rowVersion = await versionOf(f.id)
      return rowVersion ? patch({ id: f.id, rowVersion }, was) : null
    })
    await load()
    return true
  }
  async function withdraw(f: ExamFinding, says: string) {
    if (!(await patch(f, { withdrawn: true }))) return load()
    remember(says, async () => patch({ id: f.id, rowVersion: f.rowVersion + 1 }, { withdrawn: false }))
    await load()
  }
  async function undo() {
    const last = newest()
    if (!last) return
    undoable.value = undoable.value.filter(u => u !== last)
    await last.back()
    await load()
  }
  return { add, change, withdraw, undo, last: computed(() => newest()?.says ?? null) }
}

/** A face as a rectangle of so many px, its corners rounded to an oval where it is one. */
export const faceRect = ({ shape }: { shape: string }, width: number, height: number) =>
  shape === 'oval' ? { width, height, rx: width / 2, ry: height / 2 } : { width, height }
