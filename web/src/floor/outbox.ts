import { sendTold, type Door } from './door'
import { deviceOf, forgetWaiting, refuse, say, waitingOf, type Waiting } from './keep'
import type { Done, Event } from './types'

const atOnce = 40 // events in one go
const [firstWait, longestWait] = [1000, 60_000]

/** State is what of the outbox is shown. */
export interface OutboxState {
  waiting: { row: Waiting; event: Event }[]
  words: string // why nothing leaves, empty where it does
}

/**
 * Outbox sends what waits, in its order, again and again with growing waits, until it is acknowledged. One tab of a
 * browser sends at a time.
 */
export class Outbox {
  private timer: ReturnType<typeof setTimeout> | undefined
  private wait = firstWait
  private busy = false
  private again = false
  private closed = false
  private atOnce = atOnce

  constructor(
    private door: Door,
    private show: (s: OutboxState) => void,
    private heard: (done: Done, offset: number) => Promise<void>,
  ) {}

  /** begin sends what waits, until what it returns is called. */
  begin(): () => void {
    this.closed = false
    window.addEventListener('online', this.now)
    document.addEventListener('visibilitychange', this.now)
    this.now()
    return () => {
      this.closed = true
      clearTimeout(this.timer)
      window.removeEventListener('online', this.now)
      document.removeEventListener('visibilitychange', this.now)
    }
  }

  /** now sends at once. */
  now = () => {
    this.wait = firstWait
    void this.drain()
  }

  /** reload shows what waits. */
  async reload(words = '') {
    const waiting = await waitingOf(this.door.owner)
    if (!this.closed) this.show({ waiting, words })
    return waiting.filter((w) => !w.row.refused)
  }

  private async drain() {
    if (this.busy) {
      this.again = true
      return
    }
    this.busy = true
    this.again = false
    clearTimeout(this.timer)
    try {
      if (navigator.locks) await navigator.locks.request(`musculus-floor ${this.door.owner}`, () => this.send())
      else await this.send()
    } finally {
      this.busy = false
    }
    if (this.again) void this.drain() // something came while the last of it left
  }

  private async send() {
    for (let waiting = await this.reload(); waiting.length > 0 && !this.closed; waiting = await this.reload()) {
      const first = waiting[0]!.row
      const batch = waiting.filter((w) => w.row.session === first.session).slice(0, this.atOnce)
      const answer = await sendTold(
        this.door,
        first.client,
        first.session,
        await deviceOf(),
        batch.map((w) => w.event),
      )
      if (answer.is === 'ok') {
        this.atOnce = atOnce
        this.wait = firstWait
        const offset = Date.parse(answer.what.done.now) - (answer.sentAt + answer.heardAt) / 2
        void say('offset', offset)
        await this.heard(answer.what.done, offset) // what is acknowledged is kept as done before it is forgotten as waiting
        await forgetWaiting(answer.what.answers.filter((a) => a.state === 'kept').map((a) => a.id))
        for (const a of answer.what.answers) if (a.state === 'refused') await refuse(a.id, a.words)
        continue
      }
      if (answer.is === 'refused' && (answer.status === 422 || answer.status === 413 || answer.status === 400)) {
        if (batch.length > 1)
          this.atOnce = 1 // one of them cannot be read: it holds up no other
        else await refuse(first.id, answer.words)
        continue
      }
      if (answer.is === 'refused' && (answer.status === 404 || answer.status === 410 || answer.status === 403)) {
        for (const w of batch) await refuse(w.row.id, answer.words) // it will never be taken
        continue
      }
      await this.reload(answer.is === 'out' ? answer.words : '')
      this.timer = setTimeout(() => void this.drain(), this.wait)
      this.wait = Math.min(longestWait, 2 * this.wait)
      return
    }
  }
}
