import { v7 as uuidv7 } from 'uuid'
import { Problem } from '../api/client'
import { accountNow, keep, keptKeys, readKept } from '../app/kept'
import { next, opened, type Doc, type Event, type Failure, type Merge, type Phase, type There } from './doc'

/** Sending is what a save needs to know. */
export interface Sending<T, B> {
  value: T
  there: There<T, B>
  write: string
  sure: boolean
}

/** Kind is one kind of thing that is edited: how it is sent and what is told of it. An id is its address in parts. */
export interface Kind<T, B> {
  name: string
  /** how long after the last edit it is sent, ms */
  quietMs: number
  /** sends it and returns what the server has then */
  send: (id: string[], doc: Sending<T, B>) => Promise<There<T, B>>
  /** what somebody else wrote in between, by a 409; null: it is no such answer */
  theirs: (id: string[], p: Problem, doc: Sending<T, B>) => Promise<There<T, B> | null> | There<T, B> | null
  /** takes in what somebody else added to it */
  merge?: Merge<T, B>
  /** what an earlier version of this page left unsaved of it, taken once */
  left?: (id: string[]) => { value: T; base: B } | null
  /** where it is edited, and what it is called there */
  place: (id: string[], value: T) => { path: string; words: string }
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- documents of all kinds live side by side; a kind is typed where it is used
type AnyKind = Kind<any, any>
type AnyDoc = Doc<unknown, unknown>

interface Live {
  kind: AnyKind
  id: string[]
  doc: AnyDoc
  timer?: ReturnType<typeof setTimeout>
  flying: boolean
  shown: number // components that show it
}

/** Waits is a document that is not saved and will not be by itself within the next moments. */
export interface Waits {
  key: string
  is: Phase
  path: string
  words: string
}

interface Stored {
  value: unknown
  there: There<unknown, unknown>
  write: string
  sure: boolean
  /** the tab it was typed in, and when it was kept last */
  tab: string
  at: number
}

const again = 2000 // before a send is tried again while the server is away, ms
const quietTabMs = 60_000 // after which a tab that cannot be asked is taken for closed
const adoptMs = 20_000 // between looks at what tabs that were closed have left
const store = 'doc '

/**
 * Outbox keeps what is typed until the server has it: in this browser for the account, over a reload, a lost network and
 * a lost sign-in; it is sent again from whatever page is open, and only as the account that typed it.
 */
export class Outbox {
  private docs = new Map<string, Live>()
  private listeners = new Set<() => void>()
  private kinds = new Map<string, AnyKind>()
  private account: string | null = null
  private tab = tabHere()
  private claimed?: Promise<void>
  private looking?: ReturnType<typeof setInterval>
  private waits: Waits[] = []
  private changes = 0
  /** signedOut is called when an answer says that the sign-in has ended. */
  signedOut: () => void = () => {}

  constructor(kinds: AnyKind[]) {
    for (const k of kinds) this.kinds.set(k.name, k)
    if (typeof window !== 'undefined') window.addEventListener('online', () => this.resume())
  }

  /** begin takes up what an account has left unsent here; what another account typed stays where it is. */
  begin(account: string) {
    if (account !== this.account) {
      for (const live of this.docs.values()) clearTimeout(live.timer)
      this.docs.clear()
      this.account = account
      void this.adopt()
      this.claimed ??= claimTab(this.tab).then((tab) => {
        this.tab = tab
      })
      clearInterval(this.looking)
      this.looking = setInterval(() => void this.adopt(), adoptMs)
    }
    this.resume()
    this.tell()
  }

  /** end forgets everything: whoever it was of signs out, and nothing of it is kept or sent any more. */
  end() {
    for (const live of this.docs.values()) clearTimeout(live.timer)
    clearInterval(this.looking)
    this.docs.clear()
    this.account = null
    this.tell()
  }

  /** adopt takes up what tabs that are not there any more have left. */
  private async adopt() {
    const alive = await tabsAlive()
    for (const key of keptKeys(localStorage, store)) {
      const kept = readKept<Stored>(localStorage, store + key)
      // Where tabs cannot be told to live, what has not been touched for a while is left.
      const left = alive ? !alive.has(kept?.tab ?? '') : Date.now() - (kept?.at ?? 0) > quietTabMs
      if (left || kept?.tab === this.tab) this.restore(key, true)
    }
  }

  /** restore brings a document back as this tab kept it, or one that is gone (left); undefined when nothing was. */
  private restore(key: string, left = false): Live | undefined {
    const here = this.docs.get(key)
    if (here && here.doc.is !== 'saved') return here
    const [name = '', ...id] = key.split('/')
    const kind = this.kinds.get(name)
    const kept = readKept<Stored>(localStorage, store + key)
    if (!kind || !kept?.there || (!left && kept.tab !== this.tab)) return here
    const doc: AnyDoc = {
      ...opened(kept.there),
      value: kept.value,
      is: 'dirty',
      sure: kept.sure,
      attempt: kept.write ? { write: kept.write, value: kept.value } : null,
      past: [kept.there.value],
    }
    const live: Live = { kind, id, doc, flying: false, shown: here?.shown ?? 0 }
    this.docs.set(key, live)
    this.remember(key, live)
    this.later(key, live)
    this.tell()
    return live
  }

  /** open returns a document, as it was left here, else as the server has it. */
  open<T, B>(kind: Kind<T, B>, id: string[], there: There<T, B>): Doc<T, B> {
    const key = keyOf(kind.name, id)
    let live = this.docs.get(key) ?? this.restore(key)
    if (!live) {
      live = { kind, id, doc: opened(there), flying: false, shown: 0 }
      this.docs.set(key, live)
      const left = kind.left?.(id)
      if (left) {
        live.doc = { ...opened({ ...there, base: left.base }), value: left.value, is: 'dirty', past: [there.value] }
        this.remember(key, live)
        this.later(key, live)
      }
    }
    return live.doc as Doc<T, B>
  }

  /** get is a document that is open or waits. */
  get<T, B>(kind: Kind<T, B>, id: string[]): Doc<T, B> | undefined {
    return this.docs.get(keyOf(kind.name, id))?.doc as Doc<T, B> | undefined
  }

  /** under lists the documents of a kind below an address, by the last part of theirs. */
  under<T, B>(kind: Kind<T, B>, id: string[]): Record<string, Doc<T, B>> {
    const out: Record<string, Doc<T, B>> = {}
    for (const live of this.docs.values())
      if (live.kind === kind && id.every((part, i) => live.id[i] === part)) out[live.id.at(-1)!] = live.doc as Doc<T, B>
    return out
  }

  /** tell a document what happened to it. */
  do<T, B>(kind: Kind<T, B>, id: string[], e: Event<T, B>) {
    const live = this.docs.get(keyOf(kind.name, id))
    if (live) this.apply(keyOf(kind.name, id), live, e)
  }

  private apply(key: string, live: Live, e: Event<unknown, unknown>) {
    const doc = next(live.doc, e, live.kind.merge)
    if (doc === live.doc) return
    live.doc = doc
    this.remember(key, live)
    if (doc.is === 'dirty' && !live.flying)
      this.later(key, live, e.did === 'itIsSo' || e.did === 'settle' ? 0 : live.kind.quietMs)
    if (doc.is === 'saved' && live.shown === 0 && !live.flying) this.docs.delete(key)
    this.tell()
  }

  private remember(key: string, live: Live) {
    if (this.docs.get(key) !== live) return // another account's by now, or nobody's
    const { doc } = live
    const write = doc.attempt && doc.attempt.value === doc.value ? doc.attempt.write : ''
    keep(
      localStorage,
      store + key,
      doc.is === 'saved'
        ? null
        : ({
            value: doc.value,
            there: doc.there,
            write,
            sure: doc.sure,
            tab: this.tab,
            at: Date.now(),
          } satisfies Stored),
    )
  }

  private later(key: string, live: Live, ms = live.kind.quietMs) {
    clearTimeout(live.timer)
    live.timer = setTimeout(() => void this.send(key, live), ms)
  }

  private async send(key: string, live: Live): Promise<void> {
    if (
      live.flying ||
      (live.doc.is !== 'dirty' && live.doc.is !== 'away') ||
      this.docs.get(key) !== live ||
      (this.account !== null && accountNow() !== this.account)
    )
      return
    live.flying = true
    const { attempt, value, there, sure } = live.doc
    const write = attempt && attempt.value === value ? attempt.write : uuidv7()
    this.apply(key, live, { did: 'send', write })
    const sending: Sending<unknown, unknown> = { value, there, write, sure }
    let what: Event<unknown, unknown>
    try {
      what = { did: 'keep', there: (await live.kind.send(live.id, sending)) as There<unknown, unknown> }
    } catch (e) {
      if (!(e instanceof Problem)) {
        live.flying = false
        this.apply(key, live, {
          did: 'fail',
          with: { is: 'refused', why: 'Something went wrong on this page; nothing was sent.', faults: [] },
        })
        throw e // our own error: the page's boundary shows it
      }
      what = { did: 'fail', with: await this.failure(live, e, sending) }
      if (e.status === 401) this.signedOut()
    }
    live.flying = false
    if (this.docs.get(key) !== live) return // another account's by now
    this.apply(key, live, what)
    if (live.doc.is === 'away') this.later(key, live, again)
    else if (live.doc.is === 'dirty') this.later(key, live)
    else if (live.doc.is === 'saved' && live.shown === 0) this.docs.delete(key)
  }

  private async failure(
    live: Live,
    p: Problem,
    sending: Sending<unknown, unknown>,
  ): Promise<Failure<unknown, unknown>> {
    if (p.status === 401) return { is: 'away', why: 'You are signed out.' }
    if (p.away) return { is: 'away', why: p.message }
    if (p.asksWhether) return { is: 'asked', why: p.ask!.question }
    if (p.status === 409) {
      const theirs = await Promise.resolve(live.kind.theirs(live.id, p, sending)).catch(() => null)
      if (theirs) return { is: 'stale', why: p.message, theirs: theirs as There<unknown, unknown> }
    }
    return { is: 'refused', why: p.message, faults: p.faults }
  }

  /** resume sends what waits. */
  resume() {
    for (const [key, live] of this.docs)
      if (live.doc.is === 'away' || live.doc.is === 'dirty') void this.later(key, live, 0)
  }

  /**
   * show says that a component shows a document; what it returns says that it does no more: what is due is sent at
   * once.
   */
  show<T, B>(kind: Kind<T, B>, id: string[]) {
    const key = keyOf(kind.name, id)
    const live = this.docs.get(key)
    if (live) live.shown++
    return () => {
      if (!live) return
      live.shown--
      if (live.shown > 0) return
      if (live.doc.is === 'dirty') this.later(key, live, 0)
      else if (live.doc.is === 'saved' && this.docs.get(key) === live) this.docs.delete(key)
    }
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }

  /** version counts changes of any document. */
  version = () => this.changes

  /** waiting lists what is not saved and not on its way. */
  waiting = () => this.waits

  private tell() {
    this.changes++
    const waits = [...this.docs].flatMap(([key, { kind, id, doc }]) =>
      ['saved', 'dirty', 'saving'].includes(doc.is) ? [] : [{ key, is: doc.is, ...kind.place(id, doc.value) }],
    )
    if (JSON.stringify(waits) !== JSON.stringify(this.waits)) this.waits = waits
    this.listeners.forEach((l) => l())
  }
}

const keyOf = (name: string, id: string[]) => [name, ...id].join('/')

const tabKey = 'musculus-tab'

/** tabHere is the name of this tab, the same over a reload. */
function tabHere(): string {
  try {
    const id = sessionStorage.getItem(tabKey) ?? uuidv7()
    sessionStorage.setItem(tabKey, id)
    return id
  } catch {
    return uuidv7()
  }
}

/**
 * claimTab says for as long as the tab lives that it does; a tab that was copied from another takes a name of its own.
 */
async function claimTab(tab: string, tries = 4): Promise<string> {
  if (!('locks' in navigator)) return tab
  const claimed = await new Promise<boolean>((said) => {
    void navigator.locks.request(`${tabKey} ${tab}`, { ifAvailable: true }, (lock) => {
      said(lock !== null)
      return lock ? new Promise(() => {}) : null
    })
  })
  if (claimed) return tab
  if (tries > 1) {
    await new Promise((r) => setTimeout(r, 300)) // the page before a reload may still hold it
    return claimTab(tab, tries - 1)
  }
  const own = uuidv7()
  sessionStorage.setItem(tabKey, own)
  return claimTab(own)
}

/** tabsAlive are the tabs that are open; null where that cannot be told: the page is not served safely. */
async function tabsAlive(): Promise<Set<string> | null> {
  if (!('locks' in navigator)) return null
  const held = (await navigator.locks.query()).held ?? []
  return new Set(held.flatMap((l) => (l.name?.startsWith(tabKey) ? [l.name.slice(tabKey.length + 1)] : [])))
}
