/**
 * The service worker: the screens open without a connection. It keeps the built files, and of the program's answers only what is
 * in every installation: the catalogue. What belongs to the shop is kept by the pages themselves, and forgotten when a device is
 * not let in any more.
 */
declare const self: ServiceWorkerGlobalScope;
/** Every built file; put in when it is built, so that this file changes with them. */
declare const FILES: string[];
declare const BUILT: string;

const SCREENS = `kelbrast-${BUILT}`;
const CATALOGUE = 'kelbrast-catalogue';
const ANSWERS = ['/api/catalogue', '/api/catalogue/figures', '/api/measuring', '/api/faults'];
/** Out of reach of the radio nothing fails by itself. */
const WAIT_MS = 4000;

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(SCREENS)
      .then((cache) => cache.addAll(['/', ...FILES]))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(tidy().then(() => self.clients.claim()));
});

async function tidy() {
  const names = await caches.keys();
  const old = names.filter((name) => name.startsWith('kelbrast-') && name !== SCREENS && name !== CATALOGUE);
  await Promise.all(old.map((name) => caches.delete(name)));
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname, search } = new URL(request.url);
  if (request.method !== 'GET' || origin !== location.origin) return;
  if (request.mode === 'navigate') event.respondWith(page(request));
  else if (FILES.includes(pathname)) event.respondWith(file(request));
  else if (ANSWERS.includes(pathname) && !search) event.respondWith(answer(request));
});

/** A page as the program has it now; without an answer, as it was built into this worker. */
async function page(request: Request): Promise<Response> {
  try {
    const told = await fetch(request, { signal: AbortSignal.timeout(WAIT_MS) });
    if (told.ok) return told;
    return (told.status >= 500 && (await caches.match('/'))) || told;
  } catch {
    return (await caches.match('/')) ?? Response.error();
  }
}

/** A built file never changes under its name. */
async function file(request: Request): Promise<Response> {
  return (await caches.match(request)) ?? fetch(request);
}

async function answer(request: Request): Promise<Response> {
  const cache = await caches.open(CATALOGUE);
  try {
    const told = await fetch(request, { signal: AbortSignal.timeout(WAIT_MS) });
    if (told.ok) await cache.put(request.url, told.clone());
    return told;
  } catch (trouble) {
    const kept = await cache.match(request.url);
    if (kept) return kept;
    throw trouble;
  }
}
