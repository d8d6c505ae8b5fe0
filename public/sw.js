// Keeps every page and file of Manege in the browser, so that it works with the network cut.
/** The path under which the application is served. */
const BASE = location.pathname.replace(/\/sw\.js$/, '');
const CACHE = BASE ? `manege ${BASE}` : 'manege';
const PAGES = ['/', '/lesson', '/exercise', '/marking', '/open', '/look', '/embed'].map((path) =>
  // Without a slash behind the path, as the server has it.
  path === '/' && BASE ? BASE : BASE + path,
);

/** Files that are fetched at once: what somebody asks for meanwhile gets through beside them. */
const AT_ONCE = 2;

async function keepAll() {
  const cache = await caches.open(CACHE);
  const answer = await fetch(`${BASE}/offline-files`, { cache: 'no-store' });
  const files = await answer.json();
  const wanted = new Set([...PAGES, ...files].map((path) => new URL(path, location.origin).href));
  for (const request of await cache.keys()) {
    if (!wanted.has(request.url)) await cache.delete(request);
  }
  const left = [...wanted].values();
  const keepSome = async () => {
    for (const url of left) {
      const fixed = url.includes('/_next/static/');
      if (fixed && (await cache.match(url))) continue;
      await cache.add(new Request(url, { cache: 'reload' }));
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, keepSome));
}

self.addEventListener('install', (event) => {
  event.waitUntil(keepAll().then(() => self.skipWaiting()));
});

self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim());
});

self.addEventListener('message', (event) => {
  if (event.data === 'keep-all') event.waitUntil(keepAll().catch(() => {}));
});

async function keptFile(request, url) {
  const answer = (await caches.match(url.origin + url.pathname)) ?? (await fetch(request));
  if (request.destination !== 'worker') return answer;
  // A worker reads what stands behind the # of its address; an answer with an address of its own would take that away.
  return new Response(answer.body, { status: answer.status, headers: answer.headers });
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || !url.pathname.startsWith(BASE)) return;
  if (url.pathname.startsWith(`${BASE}/_next/static/`)) {
    event.respondWith(keptFile(request, url));
    return;
  }
  const offline = async () => {
    // Data for a page change without a reload: an error makes the application load the page itself.
    if (request.headers.has('rsc')) return Response.error();
    const kept = await caches.match(url.origin + (BASE ? url.pathname.replace(/\/$/, '') : url.pathname));
    return kept ?? Response.error();
  };
  event.respondWith(fetch(request).catch(offline));
});
