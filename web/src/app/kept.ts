/**
 * What this browser keeps for whoever is signed in: typed and not saved yet. Every
 * key carries the account, so that nothing one typed is shown to, or sent as, the
 * next one on this device; signing out forgets all of it.
 */
const mark = 'musculus '

let account = ''

/** accountNow is whose page this is, empty before anybody has signed in. */
export const accountNow = () => account

/** openFor says whose page this is from now on. */
export function openFor(id: string) {
  account = id
}

const keyOf = (key: string) => `${mark}${account} ${key}`

/** readKept is what was kept under a key, null when there is nothing that can be read. */
export function readKept<T>(where: Storage, key: string): T | null {
  try {
    return JSON.parse(where.getItem(keyOf(key)) ?? 'null') as T | null
  } catch {
    return null
  }
}

/** keep keeps a value, null forgets it; a full or forbidden store loses only what a reload would bring back. */
export function keep(where: Storage, key: string, value: unknown) {
  try {
    if (value === null) where.removeItem(keyOf(key))
    else where.setItem(keyOf(key), JSON.stringify(value))
  } catch {
    // it lives on in this tab
  }
}

/** keptKeys lists what is kept for the account under keys that begin so. */
export const keptKeys = (where: Storage, begin: string) =>
  mine(where)
    .map((k) => k.slice(keyOf('').length))
    .filter((k) => k.startsWith(begin))
    .map((k) => k.slice(begin.length))

const mine = (where: Storage) =>
  Array.from({ length: where.length }, (_, i) => where.key(i) ?? '').filter((k) => k.startsWith(keyOf('')))

/** unsent says whether anything is kept that has not reached the server. */
export const unsent = () => [localStorage, sessionStorage].some((where) => mine(where).length > 0)

const left = `${mark}left`

/** forgetAll drops everything of the account and tells its other tabs. */
export function forgetAll() {
  for (const where of [localStorage, sessionStorage]) mine(where).forEach((k) => where.removeItem(k))
  try {
    localStorage.setItem(left, `${account} ${Date.now()}`)
  } catch {
    // then the other tabs are told by the server's next answer
  }
}

/** startAfresh loads the page anew: what is in memory for an account, timers and all, goes with the old one. */
export function startAfresh() {
  location.replace('/')
}

/** whenLeft runs when the account signs out in another tab; what it returns stops that. */
export function whenLeft(run: () => void) {
  const heard = (e: StorageEvent) => {
    if (e.key === left && e.newValue?.startsWith(`${account} `)) run()
  }
  window.addEventListener('storage', heard)
  return () => window.removeEventListener('storage', heard)
}
