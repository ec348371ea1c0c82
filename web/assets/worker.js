// worker.js keeps the pages of the field on the phone, so that they open where there is no signal. All else comes from the farm.

const pages = 'dew-count-pages'
const files = 'dew-count-files'
const fieldPages = ['/', '/rounds', '/count', '/cut', '/store', '/school']
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
  if (request.mode === 'navigate' && fieldPages.includes(url.pathname)) event.respondWith(freshOrKept(request, url))
  else if (url.pathname.startsWith('/assets/')) event.respondWith(file(request, url.search !== ''))
})

const late = (ms) => new Promise((done) => setTimeout(done, ms, null))

// inTime is an answer of the farm, or a failure once a weak signal has had its time. A farm that can be reached and only takes long is waited for: what is kept
// would be an older day than the one that it is reckoning.
async function inTime(request) {
  const answer = fetch(request)
  answer.catch(() => {}) // it is told below, if anybody still waits for it
  const soon = await Promise.race([answer, late(patience)])
  if (soon) return soon
  const reached = await Promise.race([fetch('/assets/mark.svg', { cache: 'no-store' }).catch(() => null), late(patience)])
  if (reached) return answer
  throw new Error('no signal')
}

async function freshOrKept(request, url) {
  const cache = await caches.open(pages)
  try {
    const answer = await inTime(request)
    if (isPage(answer) && !url.searchParams.has('pick')) await cache.put(url.pathname, answer.clone())
    else if (answer.type === 'opaqueredirect') await cache.delete(url.pathname) // signed out: where to sign in is elsewhere
    return answer
  } catch {
    const kept = await cache.match(url.pathname)
    return kept ? saidToBeKept(kept) : Response.error()
  }
}

// isPage tells whether an answer is worth keeping: one that has itself asked for again is not, such as that something is being worked out.
const isPage = (answer) => answer.ok && !answer.redirected && answer.type !== 'opaqueredirect' && !answer.headers.has('Refresh')

// saidToBeKept marks a page, so that it shows the hour of what it tells.
async function saidToBeKept(kept) {
  const text = await kept.text()
  return new Response(text.replace('<body class="', '<body class="is-kept '), { status: kept.status, headers: kept.headers })
}

// A page that was opened once asks for the others of the field, with the files that they name: in the row they are wanted without signal.
self.addEventListener('message', (event) => event.waitUntil(keepAll()))

async function keepAll() {
  const cache = await caches.open(pages)
  const seen = new Set()
  for (const path of fieldPages) {
    if (await cache.match(path)) continue
    const answer = await workedOut(path).catch(() => null)
    if (!answer || !isPage(answer)) continue
    await cache.put(path, answer.clone())
    await keepNamed(await answer.text(), new URL(path, location.origin), seen)
  }
}

// workedOut asks for a page until it is worked out, or for a minute.
async function workedOut(path) {
  const tries = 60
  let answer = await fetch(path)
  for (let i = 1; i < tries && answer.headers.has('Refresh'); i++) {
    await late(1_000)
    answer = await fetch(path)
  }
  return answer
}

// keepNamed keeps the files that a page, a script or a style sheet names, and what these name.
async function keepNamed(text, base, seen) {
  for (const [, name] of text.matchAll(/(?:(?:src|href)="|from '|import '|url\(["']?)([^"'#)\s]+)/g)) {
    const url = new URL(name.replaceAll('&amp;', '&'), base)
    if (url.origin !== location.origin || !url.pathname.startsWith('/assets/') || seen.has(url.href)) continue
    seen.add(url.href)
    const answer = await file(new Request(url), url.search !== '').catch(() => null)
    if (answer && /\.(js|css)$/.test(url.pathname)) await keepNamed(await answer.clone().text(), url, seen)
  }
  const drawn = new Set(text.match(/\/assets\/ladder\/[^"'#\s<>\\]+/g)) // those that a script puts in
  for (const name of drawn) await file(new Request(new URL(name, location.origin)), true).catch(() => null)
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
