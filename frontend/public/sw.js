// Keeps the shell at hand so that a reload with the server away still opens; readings wait in the page's own outbox.
const SHELF = 'shell-1';

// The first page was fetched before this worker was there: put it, its scripts and styles, and their fonts on the shelf.
async function stock() {
  const shelf = await caches.open(SHELF);
  const keep = async (path) => {
    const answer = await fetch(path);
    await shelf.put(path, answer.clone());
    return answer.text();
  };
  const named = (text) => [...new Set(text.match(/\/assets\/[\w.-]+/g) ?? [])];
  for (const path of named(await keep('/'))) {
    const text = await keep(path);
    if (path.endsWith('.css')) await shelf.addAll(named(text));
  }
}

self.addEventListener('install', (event) => {
  self.skipWaiting();
  event.waitUntil(stock());
});
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

async function fresh(request, key) {
  const shelf = await caches.open(SHELF);
  try {
    const answer = await fetch(request);
    if (answer.ok) await shelf.put(key, answer.clone());
    return answer;
  } catch (away) {
    const kept = await shelf.match(key);
    if (kept) return kept;
    throw away;
  }
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin || url.pathname.startsWith('/api/')) return;
  event.respondWith(fresh(request, request.mode === 'navigate' ? '/' : url.pathname));
});
