import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { accountDoor } from './door'
import { forgetFloor } from './forget'
import { keepAround, keepDone, keepReady, kept, keptReady, read, sweep, tell, waitingOf } from './keep'
import { Outbox, type OutboxState } from './outbox'
import type { Around, Event } from './types'

const account = '00000000-0000-0000-0000-00000000000a'
const around = (id: string, fill: number) =>
  ({
    account: id,
    key: btoa(String.fromCharCode(...Array<number>(32).fill(fill))),
    may_plan: true,
    sessions: [],
  }) as unknown as Around
const event = (id: string) =>
  ({ id, kind: 'line', at: '2026-11-27T18:00:00Z', offset_ms: 0, version: 1, line: 'x' }) as Omit<Event, 'no'>

beforeEach(async () => {
  await Promise.all([read.ready.clear(), read.done.clear(), kept.waiting.clear(), kept.keys.clear(), kept.said.clear()])
})
afterEach(() => vi.unstubAllGlobals())

const answers = (states: Record<string, string>) =>
  vi.fn((_: string, init?: RequestInit) => {
    const sent = JSON.parse(init!.body as string) as { events: Event[] }
    return Promise.resolve(
      new Response(
        JSON.stringify({
          answers: sent.events.map((e) => ({ id: e.id, state: states[e.id] ?? 'kept', words: 'no' })),
          done: { session: 's', now: new Date().toISOString(), sets: [], events: [] },
        }),
      ),
    )
  })

/** drained waits until an outbox shows something. */
async function drained(until: (s: OutboxState) => boolean) {
  let seen = null as OutboxState | null
  const box = new Outbox(
    accountDoor(account),
    (s) => (seen = s),
    () => Promise.resolve(),
  )
  const end = box.begin()
  await vi.waitFor(() => expect(seen !== null && until(seen)).toBe(true), 3000)
  end()
  return seen!
}

test('what is told leaves in its order, and only what was acknowledged is forgotten', async () => {
  for (const id of ['a', 'b', 'c']) await tell(account, 'c', 's', event(id))
  const server = answers({ b: 'refused' })
  vi.stubGlobal('fetch', server)
  const seen = await drained((s) => s.waiting.length === 1 && s.waiting[0]!.row.refused === 'no')
  expect(seen.waiting[0]!.event.id).toBe('b')
  const sent = JSON.parse(server.mock.calls[0]![1]!.body as string) as { events: Event[] }
  expect(sent.events.map((e) => e.id)).toEqual(['a', 'b', 'c'])
  expect(sent.events[0]!.no).toBeLessThan(sent.events[1]!.no)
})

test('without network it stays; with it again it leaves', async () => {
  await tell(account, 'c', 's', event('a'))
  vi.stubGlobal('fetch', () => Promise.reject(new Error('gone')))
  await drained((s) => s.waiting.length === 1)
  expect(await waitingOf(account)).toHaveLength(1)
  vi.stubGlobal('fetch', answers({}))
  await drained((s) => s.waiting.length === 0)
  expect(await kept.waiting.count()).toBe(0)
})

test('one that cannot be read holds up no other', async () => {
  for (const id of ['a', 'b']) await tell(account, 'c', 's', event(id))
  const good = answers({})
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
    (init?.body as string).includes('"a"')
      ? Promise.resolve(new Response(JSON.stringify({ detail: 'junk' }), { status: 422 }))
      : good(path, init),
  )
  const seen = await drained((s) => s.waiting.length === 1 && s.waiting[0]!.row.refused !== '')
  expect([seen.waiting[0]!.event.id, seen.waiting[0]!.row.refused]).toEqual(['a', 'junk'])
})

test('what waits outlives a sign-out, unreadable, and is old after a month', async () => {
  await keepAround(around(account, 7))
  await keepReady(account, { session: 's', done: { now: '1' } } as never)
  await keepDone(account, { session: 's', now: '2' } as never)
  expect((await keptReady(account, 's'))?.done.now).toBe('2')
  await tell(account, 'c', 's', event('a'))
  const row = (await kept.waiting.toArray())[0]!
  expect(typeof row.body).not.toBe('string')
  await forgetFloor(account)
  expect(await read.ready.count()).toBe(0)
  expect(await read.done.count()).toBe(0)
  expect(await kept.keys.count()).toBe(0)
  expect(await kept.waiting.count()).toBe(1)
  expect(await sweep(account, Date.now() + 29 * 24 * 3600 * 1000)).toBe(0)
  expect(await sweep('somebody else', Date.now() + 31 * 24 * 3600 * 1000)).toBe(0)
  expect(await sweep(account)).toBe(1) // its owner is told
})
