// worker.js keeps the count page on the phone, so that it opens where there is no signal. All else comes from the farm.

const pages = 'dew-count-pages'
const files = 'dew-count-files'
const countPage = '/count'
const patience = 4_000 // ms that a weak signal has before the kept page is shown

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (url.origin !== location.origin) return
  if (request.method === 'POST' && (url.pathname === '/signout' || url.pathname === '/me/everywhere')) {
    event.waitUntil(caches.delete(pages)) // who signs out leaves nothing of the farm on the phone but what still waits
    return
  }
  if (request.method !== 'GET') return
  if (request.mode === 'navigate' && url.pathname === countPage) event.respondWith(freshOrKept(request))
  else if (url.pathname.startsWith('/assets/')) event.respondWith(file(request, url.search !== ''))
})

// inTime is an answer of the farm, or a failure once a weak signal has had its time.
function inTime(request) {
  return Promise.race([fetch(request), new Promise((_, late) => setTimeout(late, patience))])
}

async function freshOrKept(request) {
  const cache = await caches.open(pages)
  try {
    const answer = await inTime(request)
    if (answer.ok && !answer.redirected && answer.type !== 'opaqueredirect') await cache.put(countPage, answer.clone())
    else if (answer.type === 'opaqueredirect') await cache.delete(countPage) // signed out: where to sign in is elsewhere
    return answer
  } catch {
    return (await cache.match(countPage)) ?? Response.error()
  }
}

// file answers with a file of the page. One whose address is marked with its content never changes and is taken as it is kept; another
// may have changed with the program and is asked for first.
async function file(request, marked) {
  const cache = await caches.open(files)
  const kept = await cache.match(request)
  if (kept && marked) return kept
  try {
    const answer = await inTime(request)
    if (answer.ok) await keep(cache, request, answer.clone())
    return answer
  } catch {
    return kept ?? Response.error()
  }
}

// keep puts a file in the place of those that stood under its name before: a phone would fill up with every version of the program.
async function keep(cache, request, answer) {
  await cache.put(request, answer)
  const { pathname } = new URL(request.url)
  for (const old of await cache.keys()) {
    if (old.url !== request.url && new URL(old.url).pathname === pathname) await cache.delete(old)
  }
}
