// Has one page ready for the time when the server is away, and keeps nothing else.
const KEPT = 'keen-slate-away'
const PAGE = '/away.html'
let renewed = false

async function fill() {
  const kept = await caches.open(KEPT)
  const page = await fetch(PAGE, { cache: 'no-store' })
  if (!page.ok) return
  const seen = new Set()
  const waiting = [[PAGE, page]]
  while (waiting.length) {
    const [address, answer] = waiting.pop()
    seen.add(address)
    const text = /html|css|javascript/.test(answer.headers.get('Content-Type') ?? '') ? await answer.clone().text() : ''
    await kept.put(address, answer)
    for (const [found] of text.matchAll(/\/assets\/[\w.-]+/g))
      if (!seen.has(found) && !found.endsWith('.woff')) waiting.push([found, await fetch(found)])
  }
  for (const request of await kept.keys()) if (!seen.has(new URL(request.url).pathname)) await kept.delete(request)
  renewed = true
}

self.addEventListener('install', (event) => event.waitUntil(fill().then(() => self.skipWaiting())))
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
self.addEventListener('fetch', (event) => {
  const { mode, method, url } = event.request
  if (mode === 'navigate' && method === 'GET' && !new URL(url).pathname.startsWith('/api/')) {
    event.respondWith(page(event))
  } else if (event.request.referrer.endsWith(PAGE) || new URL(url).pathname.startsWith('/assets/')) {
    event.respondWith(
      fetch(event.request).catch(() => caches.match(new URL(url).pathname).then((kept) => kept ?? Response.error())),
    )
  }
})

async function page(event) {
  try {
    const answer = await fetch(event.request)
    // A proxy that cannot reach the server says so by itself.
    const kept = [502, 503, 504].includes(answer.status) && (await caches.match(PAGE))
    if (kept) return kept
    if (!renewed) event.waitUntil(fill().catch(() => null))
    return answer
  } catch (error) {
    return (await caches.match(PAGE)) ?? Promise.reject(error)
  }
}
