// Keeps the shell at hand so that a reload with the server away still opens; readings wait in the page's own outbox.
const SHELF = 'shell-1';

self.addEventListener('install', () => self.skipWaiting());
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
  event.respondWith(fresh(request, request.mode === 'navigate' ? '/' : request));
});
