/// <reference lib="webworker" />
/** Keeps the program itself, and what was read last, on the device: without signal both still open. Writes never pass here. */
import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching';
import { registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';

declare let self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] };

void self.skipWaiting();
self.addEventListener('activate', (e) => e.waitUntil(self.clients.claim()));
cleanupOutdatedCaches();

// The page is asked for anew each time, so that a new version shows at once; without signal the kept one opens.
registerRoute(
  ({ request }) => request.mode === 'navigate',
  async ({ request }) => {
    try {
      return await fetch(request);
    } catch (e) {
      const kept = await matchPrecache('/index.html');
      if (kept) return kept;
      throw e;
    }
  },
);
precacheAndRoute(self.__WB_MANIFEST);

registerRoute(
  ({ url, request }) => request.method === 'GET' && url.pathname.startsWith('/api/v1/pictures/'),
  new CacheFirst({ cacheName: 'pictures', plugins: [new ExpirationPlugin({ maxEntries: 300, purgeOnQuotaError: true })] }),
);
registerRoute(
  // Walks are kept by the walk itself, with what waits to be sent.
  ({ url, request }) =>
    request.method === 'GET' &&
    url.pathname.startsWith('/api/v1/') &&
    !url.pathname.startsWith('/api/v1/walks/') &&
    !url.pathname.endsWith('/progress') &&
    !/\.(csv|pdf|ics|yaml|gpx|geojson|zst)$/.test(url.pathname),
  new NetworkFirst({
    cacheName: 'reads',
    plugins: [
      new ExpirationPlugin({ maxEntries: 400, purgeOnQuotaError: true }),
      {
        // What is shown from the device says so.
        cachedResponseWillBeUsed: async ({ cachedResponse }) => {
          if (!cachedResponse) return cachedResponse;
          const headers = new Headers(cachedResponse.headers);
          headers.set('X-From-Device', 'yes');
          return new Response(await cachedResponse.blob(), { status: cachedResponse.status, headers });
        },
      },
    ],
  }),
);
