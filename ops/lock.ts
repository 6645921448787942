import { createHash } from 'node:crypto'
import { createServer } from 'node:net'
import type { Profile } from './profile'

/**
 * A lock that the kernel holds for this process alone, and that ends with it however it ends: a listening name that
 * lies in no directory. No child inherits it. Resolves false when another process has it.
 */
export function takeLock({ dir }: Profile): Promise<boolean> {
  const name = `\0hantverk-${createHash('sha256').update(dir).digest('hex').slice(0, 32)}`
  return new Promise((resolve, reject) => {
    const server = createServer(socket => socket.destroy())
    server.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE' ? resolve(false) : reject(error),
    )
    server.listen(name, () => {
      server.unref()
      resolve(true)
    })
  })
}
