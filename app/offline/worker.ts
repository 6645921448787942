/// <reference lib="webworker" />
/**
 * The service worker: the program's files as one version of them, and its empty frame where the server does not
 * answer. What pages read and write goes past it (composables/carried.ts keeps that).
 */
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching'

declare const self: ServiceWorkerGlobalScope

const SHELL = '/shell'
const files = self.__WB_MANIFEST as PrecacheEntry[]
const build = files.find(f => f.url === SHELL)?.revision
/** So long the server may take to answer for a page; after it the frame opens with what the device carries. */
const PATIENT_MS = 5000
/** Pages of others, and files: never the frame of the shop. */
const ELSEWHERE = /^\/(api|answer|trust|_nuxt)\b|\.\w+$/

async function pageOf(request: Request): Promise<Response> {
  const shell = async () => (await matchPrecache(SHELL)) ?? Response.error()
  try {
    return await fetch(request, { signal: AbortSignal.timeout(PATIENT_MS) })
  } catch {
    return shell()
  }
}

self.addEventListener('fetch', event => {
  const { request } = event
  if (request.mode !== 'navigate' || ELSEWHERE.test(new URL(request.url).pathname)) return
  event.respondWith(pageOf(request))
})
precacheAndRoute(files, { cleanURLs: false, directoryIndex: '' })
cleanupOutdatedCaches()

self.addEventListener('activate', event => event.waitUntil(self.clients.claim()))
self.addEventListener('message', event => {
  const type = (event.data as { type?: string } | null)?.type
  if (type === 'SKIP_WAITING') void self.skipWaiting()
  if (type === 'BUILD') event.ports[0]?.postMessage(build)
})
self.addEventListener('notificationclick', event => {
  event.notification.close()
  event.waitUntil(
    self.clients.matchAll({ type: 'window' }).then(([open]) => (open ? open.focus() : self.clients.openWindow('/'))),
  )
})
