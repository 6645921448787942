import { fileURLToPath } from 'node:url'

interface Emitter {
  emitFile: (file: { type: 'chunk'; id: string; name: string; preserveSignature: 'strict' }) => string
}

/** Builds `heavy.ts` as a file of its own beside the server's; `worker-url:heavy` is its address. */
export function heavyWorker() {
  const entry = fileURLToPath(new URL('./heavy.ts', import.meta.url))
  let file = ''
  return {
    name: 'heavy-worker',
    buildStart(this: Emitter) {
      file = this.emitFile({ type: 'chunk', id: entry, name: 'heavy', preserveSignature: 'strict' })
    },
    resolveId: (id: string) => (id === 'worker-url:heavy' ? '\0worker-url:heavy' : null),
    // the server is always started by its own file; import.meta has another meaning in a bundle of Nitro
    resolveFileUrl: ({ fileName }: { fileName: string }) =>
      `new URL('./${fileName}', 'file://' + process.argv[1]).href`,
    load: (id: string) => (id === '\0worker-url:heavy' ? `export default import.meta.ROLLUP_FILE_URL_${file}` : null),
  }
}
