import { v7 as uuidv7 } from 'uuid'
import { readDone, readReady, type Door } from './door'
import { keepDone, keepReady, keptReady, erasedOf, forgetWaiting, said, say, sweep, tell } from './keep'
import { standing, type Standing } from './machine'
import { Outbox, type OutboxState } from './outbox'
import type { Content, Done, Ready } from './types'

/** One is a session on the floor. */
export interface One {
  client: string
  ready: Ready
  done: Done
  at: Standing
}

export interface Shown {
  sessions: Record<string, One>
  waiting: OutboxState['waiting']
  words: string // why nothing leaves
  away: Record<string, string> // why a session cannot be shown
  full: string // why nothing can be kept here, empty where it can
  told: string // what changed meanwhile
  erased: number // sets that were too old to be sent
  offset: number // ms between this clock and the server's
}

const readAgain = 20_000 // without a stream, ms

/**
 * Floors is what a screen on the floor shows: the sessions that are open, what stands of them, what waits. It changes by
 * what is told here, what the server answers, and what others told.
 */
export class Floors {
  shown: Shown = { sessions: {}, waiting: [], words: '', away: {}, full: '', told: '', erased: 0, offset: 0 }
  private listeners = new Set<() => void>()
  private outbox: Outbox
  private streaming = false

  constructor(public door: Door) {
    this.outbox = new Outbox(
      door,
      (o) => this.set({ ...o, ...this.stand(o.waiting) }),
      (done, offset) => {
        this.set({ offset })
        return this.heard(done)
      },
    )
  }

  /** begin listens and sends, until what it returns is called. */
  begin(): () => void {
    const stop = listen(
      this.door,
      (session) => void this.refresh(session),
      (on) => (this.streaming = on),
    )
    const timer = setInterval(() => {
      if (!this.streaming) void this.refresh(null)
    }, readAgain)
    void said<number>('offset').then((offset) => this.set({ offset: offset ?? 0 }))
    void sweep(this.door.owner).then(
      (erased) => this.set({ erased }),
      () => this.set({ full: cannotKeep }),
    )
    const end = this.outbox.begin()
    return () => {
      end()
      stop()
      clearInterval(timer)
    }
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  snapshot = () => this.shown
  /** clock is now by the server's clock. */
  clock = () => Date.now() + this.shown.offset

  private set(part: Partial<Shown>) {
    this.shown = { ...this.shown, ...part }
    this.listeners.forEach((l) => l())
  }

  private stand(waiting: OutboxState['waiting'], sessions = this.shown.sessions): Pick<Shown, 'sessions'> {
    const out: Shown['sessions'] = {}
    for (const [id, s] of Object.entries(sessions)) {
      const mine = waiting.filter((w) => w.row.session === id && !w.row.refused).map((w) => w.event)
      out[id] = { ...s, at: standing(s.ready, s.done, mine) }
    }
    return { sessions: out }
  }

  private put(client: string, ready: Ready, done: Done) {
    const sessions = {
      ...this.shown.sessions,
      [ready.session]: { client, ready, done, at: { sets: [], events: [] } },
    }
    const away = { ...this.shown.away }
    delete away[ready.session]
    this.set({ ...this.stand(this.shown.waiting, sessions), away })
  }

  /** open brings a session on the floor: from this device at once where it is kept, and from the server. */
  async open(client: string, session: string) {
    if (!this.shown.sessions[session]) {
      const [here] = await Promise.all([
        keptReady(this.door.owner, session).catch(() => null),
        this.outbox.reload().catch(() => []), // what waits belongs to it: never the one without the other
      ])
      if (here && !this.shown.sessions[session]) this.put(client, here, here.done)
    }
    await this.read(client, session)
  }

  private async read(client: string, session: string) {
    const answer = await readReady(this.door, client, session)
    if (answer.is !== 'ok') {
      const words = answer.is === 'away' ? 'Not kept on this device yet, and there is no network.' : answer.words
      if (!this.shown.sessions[session] || answer.is !== 'away')
        this.set({ away: { ...this.shown.away, [session]: words } })
      return
    }
    const was = this.shown.sessions[session]
    const ready = answer.what
    this.set({ offset: Date.parse(ready.done.now) - (answer.sentAt + answer.heardAt) / 2 })
    this.put(client, ready, ready.done)
    if (was && was.ready.version !== ready.version)
      this.set({ told: 'The plan was changed meanwhile. What is done stays done; the rest is as it is planned now.' })
    await keepReady(this.door.owner, ready).catch(() => this.set({ full: cannotKeep }))
  }

  private async refresh(session: string | null) {
    for (const [id, s] of Object.entries(this.shown.sessions)) {
      if (session && id !== session) continue
      const answer = await readDone(this.door, s.client, id)
      if (answer.is === 'ok') await this.heard(answer.what)
    }
  }

  private async heard(done: Done) {
    const s = this.shown.sessions[done.session]
    if (!s) return
    this.put(s.client, s.ready, done)
    await keepDone(this.door.owner, done).catch(() => undefined)
    if (done.version !== s.ready.version) void this.read(s.client, done.session)
  }

  /** tell keeps an event on the device, shows it, and sends it when it can; false where it cannot be kept. */
  async tell(session: string, content: Content): Promise<string> {
    const s = this.shown.sessions[session]
    if (!s) return ''
    const id = uuidv7()
    const event = {
      id,
      at: new Date().toISOString(),
      offset_ms: Math.round(this.shown.offset),
      version: s.ready.version,
      ...content,
    }
    try {
      const one = await tell(this.door.owner, s.client, session, event)
      const waiting = [...this.shown.waiting, one]
      this.set({ waiting, ...this.stand(waiting), full: '' })
    } catch {
      this.set({ full: cannotKeep })
      return ''
    }
    setTimeout(this.outbox.now) // what is shown comes first
    return id
  }

  /** drop gives up an event that was refused. */
  async drop(id: string) {
    await forgetWaiting([id])
    await this.outbox.reload()
  }

  hush = () => {
    this.set({ told: '', erased: 0 })
    void say(erasedOf(this.door.owner), 0)
  }
}

const cannotKeep =
  'This device keeps nothing: its storage is full or forbidden. Make room before the next set, or log on paper.'

/** listen hears of what others tell; one tab of a browser holds the stream and passes it on. */
function listen(door: Door, heard: (session: string | null) => void, on: (yes: boolean) => void): () => void {
  if (!globalThis.EventSource) return () => undefined
  const passed = globalThis.BroadcastChannel ? new BroadcastChannel(`musculus-floor ${door.owner}`) : null
  let source: EventSource | null = null
  let ended = false
  let release: () => void = () => undefined
  const hold = () => {
    if (ended) return
    source = new EventSource(door.live)
    source.onopen = () => on(true)
    source.onerror = () => on(false)
    source.onmessage = (m: MessageEvent<string>) => {
      const told = JSON.parse(m.data) as { session?: string; gap?: boolean }
      const session = told.gap ? null : (told.session ?? null)
      passed?.postMessage(session)
      heard(session)
    }
  }
  if (passed)
    passed.onmessage = (m: MessageEvent<string | null>) => {
      on(true)
      heard(m.data)
    }
  if (navigator.locks)
    void navigator.locks.request(`musculus-live ${door.owner}`, () => {
      if (ended) return
      hold()
      return new Promise<void>((resolve) => (release = resolve))
    })
  else hold()
  return () => {
    ended = true
    source?.close()
    passed?.close()
    release()
  }
}
