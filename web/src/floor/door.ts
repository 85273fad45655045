import type { Around, Done, Event, Ready, Told } from './types'

/** Door is by what right one is on the floor: signed in, or with a link of one's own. */
export interface Door {
  owner: string // whose what waits is
  by: 'account' | 'link'
  /** where a session's operations are */
  at: (client: string, session: string) => string
  live: string
  headers: Record<string, string>
}

export const accountDoor = (account: string): Door => ({
  owner: account,
  by: 'account',
  at: (client, session) => `/api/clients/${client}/sessions/${session}/floor`,
  live: '/api/events/live',
  headers: { 'X-Account': account },
})

export const linkDoor = (token: string): Door => ({
  owner: `link ${token}`,
  by: 'link',
  at: (_, session) => `/api/links/${encodeURIComponent(token)}/floor/${session}`,
  live: `/api/events/links/${encodeURIComponent(token)}/live`,
  headers: {},
})

/** Answered is an answer, or why there is none. */
export type Answered<T> =
  | { is: 'ok'; what: T; sentAt: number; heardAt: number }
  | { is: 'away' } // the network, or the server, is gone
  | { is: 'out'; words: string } // not signed in, or not any more
  | { is: 'refused'; status: number; words: string }

async function ask<T>(door: Door | null, path: string, body?: unknown): Promise<Answered<T>> {
  const sentAt = Date.now()
  const stop = new AbortController()
  const late = setTimeout(() => stop.abort(), 15_000)
  try {
    const answer = await fetch(path, {
      signal: stop.signal,
      headers: { ...(door?.headers ?? {}), ...(body ? { 'Content-Type': 'application/json' } : {}) },
      ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
    })
    if (answer.ok) return { is: 'ok', what: (await answer.json()) as T, sentAt, heardAt: Date.now() }
    const problem = (await answer.json().catch(() => ({}))) as { detail?: string }
    const words = problem.detail ?? 'Something went wrong.'
    if (answer.status === 401) return { is: 'out', words }
    if (answer.status >= 500 || answer.status === 429 || answer.status === 408) return { is: 'away' }
    return { is: 'refused', status: answer.status, words }
  } catch {
    return { is: 'away' }
  } finally {
    clearTimeout(late)
  }
}

export const readAround = () => ask<Around>(null, '/api/floor')
export const readReady = (d: Door, client: string, session: string) => ask<Ready>(d, d.at(client, session))
export const readDone = (d: Door, client: string, session: string) => ask<Done>(d, `${d.at(client, session)}/done`)
export const sendTold = (d: Door, client: string, session: string, device: string, events: Event[]) =>
  ask<Told>(d, d.at(client, session), { device, events })
