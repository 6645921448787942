import { randomUUID } from 'node:crypto'
import { copyFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { VitePWA } from 'vite-plugin-pwa'
import { heavyWorker } from './server/workers/bundle'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const trade = [here('./core/'), here('./shared/')]

/** This build of the program; pages and their service worker say which they are of. */
const buildId = randomUUID()

interface Module {
  importedIds: readonly string[]
}
/** What every page of the shop begins with: the program's entry, the frame, and Now. */
const SHELL = [
  './node_modules/nuxt/dist/app/entry.js',
  './app/layouts/default.vue',
  './app/pages/index.vue',
  './node_modules/@headlessui/vue/dist/components/disclosure/disclosure.js',
]
/** Other pages in the table of routes, and a library's list of all that it has. */
const ELSEWHERE = /\?macro=true$|headlessui\.esm\.js$/
let shell: Set<string> | undefined
/** Does the shell need this module before it can be used? All of it travels in one file. */
function inShell(id: string, infoOf: (id: string) => Module | null): boolean {
  if (!shell) {
    shell = new Set(SHELL.map(here))
    for (const known of shell)
      for (const next of infoOf(known)?.importedIds ?? []) if (!ELSEWHERE.test(next)) shell.add(next)
  }
  return shell.has(id)
}

export default defineNuxtConfig({
  buildId,
  modules: ['@pinia/nuxt', '@vueuse/nuxt', 'nuxt-security', '@nuxt/eslint'],
  components: [{ path: '~/components', pathPrefix: false }],
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Hantverk',
      htmlAttrs: { lang: 'en' },
      link: [
        { rel: 'icon', href: '/favicon.svg', type: 'image/svg+xml' },
        { rel: 'manifest', href: '/manifest.webmanifest' },
      ],
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'theme-color', content: '#1c211f' },
      ],
    },
  },
  css: ['@fontsource-variable/schibsted-grotesk', '~/assets/main.css'],
  hooks: {
    // the drawn parts in their states, while working on them
    'pages:extend': pages => {
      if (process.env.NODE_ENV === 'development')
        pages.push({ name: 'workbench', path: '/workbench', file: here('./app/workbench/workbench.vue') })
    },
    // other pages are fetched when somebody turns to them, not while Now is read
    'build:manifest': manifest => {
      for (const part of Object.values(manifest)) part.prefetch = false
    },
    // a service worker answers for what lies beside and below it: it stands at the top
    'nitro:build:public-assets': ({ options: { buildDir, output } }) =>
      copyFile(`${buildDir}/dist/client/worker.js`, `${output.publicDir}/worker.js`),
  },
  runtimeConfig: {
    databaseUrl: '',
    publicBase: 'http://127.0.0.1:4180',
    /** other addresses that this shop is opened by, with commas between */
    ownAddresses: '',
    /** directory of the certificate for the shop's own network, and where to listen there; empty: not at all */
    lanDir: '',
    lanHost: '::',
    cookieSecure: false,
    /** keys, each its own; of the session key also the one before, and until when it is still taken (ISO) */
    sessionKey: '',
    sessionKeyBefore: '',
    sessionKeyBeforeUntil: '',
    linkKey: '',
    smtpUrl: 'smtp://127.0.0.1:4182',
    climateUrl: 'http://127.0.0.1:4183/reading',
    weatherUrl: 'http://127.0.0.1:4183/weather',
    swabUrl: 'http://127.0.0.1:4186/read',
    /** host:port of the lines to the colour meter and the balance */
    meterLine: '127.0.0.1:4187',
    balanceLine: '127.0.0.1:4188',
    /** 'demo' or 'test' may set the clock; anything else may not */
    mode: 'shop',
  },
  alias: { '#core': here('./core') },
  experimental: {
    appManifest: false,
    defaults: { nuxtLink: { prefetch: true, prefetchOn: { interaction: true, visibility: false } } },
  },
  compatibilityDate: '2026-01-01',
  nitro: {
    preset: 'node-server',
    compressPublicAssets: { gzip: true, brotli: true },
    // the trade in a file of its own: what works in a thread must never bring the server along
    rollupConfig: {
      output: { manualChunks: id => (trade.some(dir => id.startsWith(dir)) ? 'trade' : undefined) },
      plugins: [heavyWorker()],
    },
    serverAssets: [
      { baseName: 'migrations', dir: here('./server/database/migrations') },
      {
        baseName: 'fonts',
        dir: here('./node_modules/@fontsource/schibsted-grotesk/files'),
        pattern: 'schibsted-grotesk-{latin,latin-ext}-{400,700}-normal.woff',
      },
    ],
    routeRules: {
      '/shell': { ssr: false },
      // a client's page needs no script, and no search engine
      '/answer/**': { noScripts: true, headers: { 'x-robots-tag': 'noindex, nofollow' } },
      '/worker.js': {
        headers: {
          'cache-control': 'no-cache',
          'content-security-policy': "default-src 'none'; script-src 'self'; connect-src 'self'",
        },
      },
      '/_nuxt/**': {
        headers: {
          'cross-origin-embedder-policy': 'require-corp',
          'cross-origin-resource-policy': 'same-origin',
          'content-security-policy': "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'",
        },
      },
    },
  },
  vite: {
    $client: {
      build: {
        rollupOptions: {
          output: {
            onlyExplicitManualChunks: true,
            manualChunks: (id, { getModuleInfo }) => (inShell(id, getModuleInfo) ? 'shell' : undefined),
          },
        },
      },
    },
    plugins: [
      tailwindcss(),
      // app/offline/worker.ts with a list of all that the program is made of, and its frame without a page in it
      VitePWA({
        strategies: 'injectManifest',
        srcDir: here('./app/offline'),
        filename: 'worker.ts',
        injectRegister: false,
        manifest: false,
        injectManifest: {
          globPatterns: ['_nuxt/**/*.{js,css,woff2}'],
          additionalManifestEntries: [{ url: '/shell', revision: buildId }],
        },
      }),
    ],
    worker: { format: 'es' },
    build: { sourcemap: false },
    optimizeDeps: {
      include: ['@headlessui/vue', '@lucide/vue', 'zod', 'luxon', 'chart.js', 'vue-chartjs', 'polyclip-ts'],
    },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  telemetry: false,
  eslint: { config: { stylistic: false } },
  security: {
    corsHandler: false,
    rateLimiter: false,
    // server/utils/body.ts counts bytes as they come; this one believes the announced length
    requestSizeLimiter: false,
    xssValidator: false,
    headers: {
      strictTransportSecurity: false,
      referrerPolicy: 'same-origin',
      crossOriginEmbedderPolicy: 'require-corp',
      permissionsPolicy: {
        'camera': ['self'],
        'fullscreen': ['self'],
        'screen-wake-lock': ['self'],
        'display-capture': [],
        'geolocation': [],
        'microphone': [],
      },
      contentSecurityPolicy: {
        'default-src': ["'none'"],
        'base-uri': ["'none'"],
        'connect-src': ["'self'"],
        'font-src': ["'self'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'manifest-src': ["'self'"],
        'script-src': ["'strict-dynamic'", "'nonce-{{nonce}}'", "'wasm-unsafe-eval'"],
        'script-src-attr': ["'none'"],
        'style-src': ["'self'", "'nonce-{{nonce}}'"],
        'style-src-attr': ["'unsafe-inline'"],
        'worker-src': ["'self'"],
        'upgrade-insecure-requests': false,
      },
    },
  },
})
