/** What the installed page works with where there is no network: its own files, its one page, and what was last asked. */
/// <reference lib="webworker" />
import { ANSWERS, lasts } from './api/lasting'
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'
import { registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (string | { url: string; revision: string | null })[] }

/** The one page of all views. It is kept as it was served, for its styles carry a mark that its own headers name. */
const SHELL = '/'
const PAGES = 'pages'
/** Answers are kept at most so many: the tours looked at last. */
const MOST_ANSWERS = 120
/** The page waits no longer for a network that says nothing [s]. */
const PATIENCE_S = 2
/** Set on what is told from memory. */
const KEPT = 'X-Omnifer-Kept'

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

self.addEventListener('install', (event) => {
  // A newer page is taken on at once: the older one's files are gone from the server.
  void self.skipWaiting()
  event.waitUntil(
    caches.open(PAGES).then(async (pages) => {
      const page = await fetch(SHELL, { cache: 'reload' })
      if (page.ok) await pages.put(SHELL, page)
    }),
  )
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

const pages = new NetworkFirst({
  cacheName: PAGES,
  networkTimeoutSeconds: PATIENCE_S,
  plugins: [{ cacheKeyWillBeUsed: () => Promise.resolve(SHELL) }],
})
/** Files that are saved and the guide are no views: kept as the page, they would stand in its place. */
const NO_VIEW = /^\/(api|guide)\//
registerRoute(({ request, url }) => request.mode === 'navigate' && !NO_VIEW.test(url.pathname), pages)

const answers = new NetworkFirst({
  cacheName: ANSWERS,
  plugins: [
    new ExpirationPlugin({ maxEntries: MOST_ANSWERS }),
    {
      cachedResponseWillBeUsed: async ({ cachedResponse }) => {
        if (!cachedResponse) return cachedResponse
        const headers = new Headers(cachedResponse.headers)
        headers.set(KEPT, 'yes')
        return new Response(await cachedResponse.blob(), { status: cachedResponse.status, headers })
      },
    },
  ],
})
registerRoute(({ url, request }) => request.method === 'GET' && lasts(url.pathname), answers)
