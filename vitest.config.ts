import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Tests that share a server run one file at a time; those of core run beside each other. */
const shared = process.argv.some(arg => /tests\/(api|operations|crash)/.test(arg))

export default defineConfig({
  resolve: { alias: { '#core': here('./core'), '#shared': here('./shared') } },
  test: {
    include: ['tests/{core,published,golden,api,operations,crash}/**/*.test.ts'],
    fileParallelism: !shared,
    testTimeout: 90_000,
    hookTimeout: 120_000,
  },
})
