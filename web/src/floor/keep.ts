import Dexie, { type Table } from 'dexie'
import { v7 as uuidv7 } from 'uuid'
import type { Around, Done, Event, Ready } from './types'

/**
 * What a device keeps for the floor: sessions of the next days as they are run, and what was told and has not been
 * acknowledged. Everything carries its owner, an account or a link; what waits is locked with a key that only the
 * owner's sign-in brings, so that it outlives signing out and is unreadable to others.
 */
interface KeptReady {
  key: string // owner and session
  owner: string
  readAt: number
  ready: Ready
}

interface KeptDone {
  key: string
  owner: string
  done: Done
}

export interface Waiting {
  id: string
  owner: string
  session: string
  client: string
  no: number
  madeAt: number
  refused: string // why it will never be kept, empty while it may
  body: ArrayBuffer | string // locked where the browser can
  iv?: Uint8Array<ArrayBuffer>
}

interface KeptKey {
  owner: string
  key: CryptoKey
}

interface Said {
  name: string
  value: unknown
}

/** What can be read again lies apart: it need not outlive the power going, and no tap waits for it. */
class Reading extends Dexie {
  ready!: Table<KeptReady, string>
  done!: Table<KeptDone, string>
  constructor() {
    super('musculus-floor-ready', { chromeTransactionDurability: 'relaxed' })
    this.version(1).stores({ ready: 'key, owner, readAt', done: 'key, owner' })
  }
}

class Keeping extends Dexie {
  waiting!: Table<Waiting, string>
  keys!: Table<KeptKey, string>
  said!: Table<Said, string>
  constructor() {
    super('musculus-floor', { chromeTransactionDurability: 'strict' })
    this.version(1).stores({
      waiting: 'id, owner, [owner+no], madeAt',
      keys: 'owner',
      said: 'name',
    })
  }
}

export const kept = new Keeping()
export const read = new Reading()

const readyFor = 4 * 24 * 60 * 60 * 1000 // a session is kept this long after it was read
const waitsFor = 30 * 24 * 60 * 60 * 1000 // what nobody may send any more is erased after this

/** said reads and keeps a small thing of the device. */
export async function said<T>(name: string): Promise<T | null> {
  return ((await kept.said.get(name))?.value as T | undefined) ?? null
}
export const say = (name: string, value: unknown) => kept.said.put({ name, value })

/** deviceOf is this device, named when it first tells something. */
export async function deviceOf(): Promise<string> {
  const known = await said<string>('device')
  if (known) return known
  const fresh = uuidv7()
  await say('device', fresh)
  return fresh
}

/** keepAround keeps what an account's floor begins with, and its key where the browser can hold one. */
export async function keepAround(around: Around) {
  const { key, ...rest } = around
  await say(`around ${around.account}`, rest)
  await say('account', around.account)
  if (globalThis.crypto?.subtle) {
    const bytes = Uint8Array.from(atob(key), (c) => c.charCodeAt(0))
    const locked = await crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt'])
    await kept.keys.put({ owner: around.account, key: locked })
  }
}

export const keptAround = async () => {
  const account = await said<string>('account')
  return account ? said<Omit<Around, 'key'>>(`around ${account}`) : null
}

const keyAt = (owner: string, session: string) => `${owner} ${session}`

export const keepReady = (owner: string, ready: Ready) =>
  read.ready.put({ key: keyAt(owner, ready.session), owner, readAt: Date.now(), ready })

/** keepDone keeps what the server said was done: before what waited is forgotten. */
export const keepDone = (owner: string, done: Done) => read.done.put({ key: keyAt(owner, done.session), owner, done })

/** keptReady is a session as it is kept, with what was done of it. */
export async function keptReady(owner: string, session: string): Promise<Ready | null> {
  const key = keyAt(owner, session)
  const [ready, done] = await Promise.all([read.ready.get(key), read.done.get(key)])
  if (!ready) return null
  const newer = done && done.done.now > ready.ready.done.now
  return newer ? { ...ready.ready, done: done.done } : ready.ready
}

const since = 1_767_225_600 // the start of 2026, s: what is counted stays small
let counted: number | null = null // as far as this device has counted, once what waits was looked at
const keysHere = new Map<string, CryptoKey | null>()

async function keyOf(owner: string): Promise<CryptoKey | null> {
  let key = keysHere.get(owner)
  if (key === undefined) {
    key = (await kept.keys.get(owner))?.key ?? null
    if (key) keysHere.set(owner, key)
  }
  return key
}

/** tell keeps an event until it is acknowledged; it throws where the browser refuses to keep it. One write, so that it is quick. */
export async function tell(
  owner: string,
  client: string,
  session: string,
  event: Omit<Event, 'no'>,
): Promise<{ row: Waiting; event: Event }> {
  counted ??= (await kept.waiting.where('owner').equals(owner).sortBy('no')).at(-1)?.no ?? 0
  const no = Math.max(counted + 1, Math.floor(Date.now() / 1000) - since) // never back, whatever an earlier page counted
  counted = no
  const whole: Event = { ...event, no }
  const plain = JSON.stringify(whole)
  const row: Waiting = { id: event.id, owner, client, session, no, madeAt: Date.now(), refused: '', body: plain }
  const key = await keyOf(owner)
  if (key) {
    row.iv = crypto.getRandomValues(new Uint8Array(12))
    row.body = await crypto.subtle.encrypt({ name: 'AES-GCM', iv: row.iv }, key, new TextEncoder().encode(plain))
  }
  await kept.waiting.put(row)
  return { row, event: whole }
}

/** waitingOf reads what waits of an owner, in its order; what cannot be unlocked is not hers. */
export async function waitingOf(owner: string): Promise<{ row: Waiting; event: Event }[]> {
  const key = await keyOf(owner)
  const rows = await kept.waiting.where('owner').equals(owner).sortBy('no')
  const out = []
  for (const row of rows) {
    try {
      const plain =
        typeof row.body === 'string'
          ? row.body
          : key && row.iv
            ? new TextDecoder().decode(await crypto.subtle.decrypt({ name: 'AES-GCM', iv: row.iv }, key, row.body))
            : null
      if (plain) out.push({ row, event: JSON.parse(plain) as Event })
    } catch {
      // locked with another key: it stays until it is erased
    }
  }
  return out
}

export const forgetWaiting = (ids: string[]) => kept.waiting.bulkDelete(ids)
export const refuse = (id: string, words: string) => kept.waiting.update(id, { refused: words })

/** erasedOf names how many of an owner's told things were never sent. */
export const erasedOf = (owner: string) => `erased ${owner}`

/** sweep erases what is too old to be of use; it tells how many of an owner's things were never sent. */
export async function sweep(owner: string, now = Date.now()): Promise<number> {
  await read.ready
    .where('readAt')
    .below(now - readyFor)
    .delete()
  const old = await kept.waiting
    .where('madeAt')
    .below(now - waitsFor)
    .toArray()
  for (const w of old) await say(erasedOf(w.owner), ((await said<number>(erasedOf(w.owner))) ?? 0) + 1)
  await forgetWaiting(old.map((w) => w.id))
  return (await said<number>(erasedOf(owner))) ?? 0
}
