// @ts-check
/**
 * On the page of the plain address: whether this browser still holds for this address what it could not send, and
 * handing that to the workshop's page over https. As it is written, so it is served: the page is for phones that trust
 * nothing of this server yet, and stands outside the application.
 */
const STORE = 'nine-ripples', LISTS = ['waiting', 'begun', 'changes']
const section = /** @type {HTMLElement} */ (document.getElementById('left'))
const workshop = section.dataset.to ?? ''

/** @template T @param {IDBRequest<T>} request @returns {Promise<T>} */
const result = request => new Promise((resolve, reject) => {
  request.onsuccess = () => resolve(request.result)
  request.onerror = () => reject(request.error)
})

/** The store as the application left it; undefined where it left none. @returns {Promise<IDBDatabase | undefined>} */
async function open() {
  const request = indexedDB.open(STORE)
  // There was none: let it stay so.
  request.onupgradeneeded = () => request.transaction?.abort()
  return result(request).catch(() => undefined)
}

/** @returns {Promise<Record<string, unknown[]>>} each list as it is kept; an older store has fewer */
async function readAll() {
  const db = await open(), there = LISTS.filter(name => db?.objectStoreNames.contains(name))
  const lists = await Promise.all(
    there.map(name => result(/** @type {IDBDatabase} */ (db).transaction(name).objectStore(name).getAll())),
  )
  db?.close()
  return Object.fromEntries(LISTS.map(name => [name, lists[there.indexOf(name)] ?? []]))
}

/** What the workshop's page has written down there leaves here. @param {Record<string, IDBValidKey[]>} kept */
async function forget(kept) {
  const db = await open()
  if (!db) return
  for (const name of LISTS.filter(n => db.objectStoreNames.contains(n))) {
    const store = db.transaction(name, 'readwrite').objectStore(name)
    await Promise.all((kept[name] ?? []).map(key => result(store.delete(key))))
  }
  db.close()
}

/** Draws how much is here. @returns {Promise<number>} */
async function show() {
  const count = Object.values(await readAll()).reduce((sum, list) => sum + list.length, 0)
  for (const shown of section.querySelectorAll('[data-count]')) shown.textContent = String(count)
  return count
}

/** @param {string} which of the sentences that stand ready in the page */
function say(which) {
  for (const said of section.querySelectorAll('[data-said]'))
    /** @type {HTMLElement} */ (said).hidden = /** @type {HTMLElement} */ (said).dataset.said !== which
}

/** @type {Window | null} */
let other = null
section.querySelector('button')?.addEventListener('click', () => {
  other = window.open(`${workshop}/hand-over`)
  say(other ? 'opened' : 'blocked')
})
addEventListener('message', async (event) => {
  if (event.source !== other || event.origin !== new URL(workshop).origin) return
  if (event.data?.ripples === 'ready') other?.postMessage({ ripples: 'left', ...await readAll() }, event.origin)
  if (event.data?.ripples !== 'kept') return
  await forget(event.data.kept)
  say(await show() === 0 ? 'done' : 'some')
})
section.hidden = await show() === 0

export {}
