/**
 * The service worker: after one visit the application opens offline. It caches the code, the fonts and one page of its version. Server
 * answers are stored elsewhere (`kept.ts`), by person.
 */
import { cleanupOutdatedCaches, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/** The part of the service worker API used here. */
interface WorkerScope {
  readonly __WB_MANIFEST: (PrecacheEntry | string)[];
  readonly skipWaiting: () => Promise<void>;
  readonly addEventListener: (type: string, listener: (event: Extended) => void) => void;
}
interface Extended {
  readonly waitUntil: (work: Promise<unknown>) => void;
  readonly data?: { readonly type?: string };
}
declare const self: WorkerScope;

const files = self.__WB_MANIFEST;
/** The page names the files of its version, so each version has its own cache. */
const PAGES = 'water-clock-page-';
const PAGE = `${PAGES}${files.map((file) => (typeof file === 'string' ? file : file.url)).join().length}-${hashOf(files)}`;
const AT = '/';

function hashOf(all: readonly (PrecacheEntry | string)[]): string {
  let hash = 0;
  for (const char of JSON.stringify(all)) hash = (Math.imul(hash, 31) + char.charCodeAt(0)) | 0;
  return (hash >>> 0).toString(36);
}

precacheAndRoute(files);
cleanupOutdatedCaches();

async function keepPage(): Promise<void> {
  const answer = await fetch(new Request(AT, { cache: 'reload' }));
  if (!answer.ok) throw new Error(`the page was answered with ${answer.status}`);
  await (await caches.open(PAGE)).put(AT, answer);
}

self.addEventListener('install', (event) => {
  event.waitUntil(keepPage());
});
self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(
          names
            .filter((name) => name.startsWith(PAGES) && name !== PAGE)
            .map((name) => caches.delete(name)),
        ),
      ),
  );
});
// A new version waits until someone accepts it.
self.addEventListener('message', (event) => {
  if (event.data?.type === 'SKIP_WAITING') void self.skipWaiting();
});

/** The page of this version, even online: a new version is only used once someone accepts it. */
async function page(request: Request): Promise<Response> {
  const kept = await (await caches.open(PAGE)).match(AT);
  return kept ?? fetch(request);
}

registerRoute(
  new NavigationRoute(({ request }) => page(request), {
    denylist: [/^\/api(\/|$)/u, /^\/metrics$/u, /\.[a-z0-9]+$/iu],
  }),
);
