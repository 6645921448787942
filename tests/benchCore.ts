/** The planning core of this tree beside that of an older commit, in one process: `benchCore.ts <commit>`. */
import { execFileSync } from 'node:child_process'
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'esbuild'
import { type Core, planBench } from './benchPlan'

const HERE = join(import.meta.dirname, '..')

/** The core under a root, built with this bench over it. */
async function coreOf(name: string, root: string, out: string): Promise<Core> {
  const outfile = join(out, `${name}.mjs`)
  await build({
    entryPoints: [join(root, 'tests/benchPlan.ts')],
    ...({ outfile, bundle: true, format: 'esm', platform: 'node', logLevel: 'error' } as const),
    alias: { '#core': join(root, 'core'), '#shared': join(root, 'shared') },
    nodePaths: [join(HERE, 'node_modules')],
  })
  return { ...((await import(pathToFileURL(outfile).href)) as Omit<Core, 'name'>), name }
}

async function main(commit: string) {
  const dir = mkdtempSync(join(tmpdir(), 'hantverk-core-'))
  try {
    const tar = execFileSync('git', ['archive', commit, 'core', 'shared', 'tests/facts.ts'], {
      cwd: HERE,
      maxBuffer: 2 ** 28,
    })
    execFileSync('tar', ['-x', '-C', dir], { input: tar })
    copyFileSync(join(HERE, 'tests/benchPlan.ts'), join(dir, 'tests/benchPlan.ts'))
    const cores = [await coreOf(`core of ${commit}`, dir, dir), await coreOf('core of this tree', HERE, dir)]
    planBench(cores, (what, figure) => console.log(`${what.padEnd(72)} ${figure}`))
  } finally {
    rmSync(dir, { recursive: true, force: true })
  }
}

const commit = process.argv[2]
if (!commit) throw new Error('Which commit? Such as: ./hantverk bench --core HEAD~20')
await main(commit)
