import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  resolve: { alias: { '#core': here('./core'), '#shared': here('./shared') } },
  test: {
    include: ['tests/{core,published,golden,api,operations,crash}/**/*.test.ts'],
    fileParallelism: false,
    testTimeout: 90_000,
    hookTimeout: 120_000,
  },
})
