import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type WeekDraft, type WeekView } from '../../api/client'
import { useWeek } from './useWeek'

interface Kept extends WeekDraft {
  gone?: boolean
}

/** A server with a memory: it keeps sessions by version and refuses stale ones, as the real one does. */
let kept: Map<string, Kept>
let sent: WeekDraft[][]
let writes: Set<string>
let trouble: (() => Response | 'lost' | 'away')[]

const view = (removed: { id: string; version: number }[] = []) =>
  ({
    sessions: [...kept.values()].filter((s) => !s.gone).map((s) => ({ ...s, board: [], minutes: 0, warm_up: 0 })),
    findings: [],
    removed,
    days: [],
    from: '2026-11-23',
    to: '2026-11-29',
  }) as unknown as WeekView
const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const answer = (response: Response, body: unknown) =>
  response.ok ? { data: body, response } : { error: body, response }

function put(sessions: WeekDraft[]) {
  sent.push(sessions)
  const what = trouble.shift()?.()
  if (what === 'away') throw new Problem(0, 'no network')
  if (what instanceof Response) return answer(what, { detail: 'refused' })
  const removed: { id: string; version: number }[] = []
  for (const s of sessions) {
    const was = kept.get(s.id)
    const again = writes.has(s.write!)
    if (!again && (was?.version ?? 0) !== s.version)
      return answer(json(409, {}), { detail: 'saved by Jory in between' })
    if (!again) kept.set(s.id, { ...s, version: s.version + 1, gone: s.removed })
    writes.add(s.write!)
    if (s.removed) removed.push({ id: s.id, version: kept.get(s.id)!.version })
  }
  if (what === 'lost') throw new Problem(0, 'the answer was lost')
  return answer(json(200, {}), view(removed))
}

const session = (id: string): Kept => ({
  id,
  version: 1,
  name: id,
  planned_on: '2026-11-25',
  warm_up_min: 5,
  slots: [],
})

beforeEach(() => {
  kept = new Map(['a', 'b'].map((id) => [id, session(id)]))
  localStorage.clear()
  sent = []
  writes = new Set()
  trouble = []
  vi.spyOn(api, 'GET').mockImplementation((async () => answer(json(200, {}), view())) as never)
  vi.spyOn(api, 'POST').mockImplementation((async () => answer(json(200, {}), view())) as never)
  vi.spyOn(api, 'PUT').mockImplementation((async (_path: string, init: { body: { sessions: WeekDraft[] } }) =>
    put(structuredClone(init.body.sessions))) as never)
})
afterEach(() => vi.restoreAllMocks())

function open() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const arrived = view()
  const hook = renderHook(() => useWeek('c', '2026-11-23', arrived), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={queries}>{children}</QueryClientProvider>
    ),
  })
  const week = hook.result
  const settled = (n: number) => waitFor(() => expect([sent.length, week.current.doc.is]).toEqual([n, 'saved']))
  const rename = (id: string, name: string) =>
    act(() => week.current.edit(week.current.drafts.map((d) => (d.id === id ? { ...d, name } : d))))
  const names = () => week.current.drafts.map((d) => d.name).join(' ')
  return { week, settled, rename, names }
}

describe('a week that is edited', () => {
  it('saves what changed and nothing else, and undoes and redoes it', async () => {
    const { week, settled, rename, names } = open()
    rename('a', 'heavy day')
    expect(names()).toBe('heavy day b')
    await settled(1)
    expect(sent[0]!.map((s) => [s.id, s.version, s.name])).toEqual([['a', 1, 'heavy day']])
    act(() => week.current.undo())
    await settled(2)
    expect(kept.get('a')).toMatchObject({ name: 'a', version: 3 })
    act(() => week.current.redo())
    await settled(3)
    expect(names()).toBe('heavy day b')
    expect(week.current.canRedo).toBe(false)
  })

  it('takes a session out and brings it back over the version it was taken out as', async () => {
    const { week, settled, names } = open()
    act(() => week.current.edit(week.current.drafts.filter((d) => d.id !== 'a')))
    await settled(1)
    expect(sent[0]).toMatchObject([{ id: 'a', version: 1, removed: true }])
    expect(kept.get('a')!.gone).toBe(true)
    act(() => week.current.undo())
    await settled(2)
    expect(sent[1]).toMatchObject([{ id: 'a', version: 2 }])
    expect(sent[1]![0]!.removed).toBeFalsy()
    expect(kept.get('a')!.gone).toBeFalsy()
    act(() => week.current.redo())
    await settled(3)
    expect(kept.get('a')!.gone).toBe(true)
    expect(names()).toBe('b')
  })

  it('takes a planned session back by undo, and only that one', async () => {
    const { week, settled } = open()
    act(() => week.current.edit([...week.current.drafts, { ...session('new'), version: 0 }]))
    await settled(1)
    expect(kept.get('new')!.version).toBe(1)
    act(() => week.current.undo())
    await settled(2)
    expect(sent[1]).toMatchObject([{ id: 'new', version: 1, removed: true }])
    expect([...kept.values()].filter((s) => !s.gone).map((s) => s.id)).toEqual(['a', 'b'])
  })

  it('never takes out what somebody else added meanwhile', async () => {
    const { week, settled, rename } = open()
    kept.set('theirs', session('theirs'))
    rename('a', 'mine')
    await settled(1)
    expect(week.current.drafts.map((d) => d.id)).toContain('theirs')
    rename('b', 'mine too')
    await settled(2)
    expect(sent.flat().some((s) => s.removed)).toBe(false)
    expect(kept.get('theirs')!.gone).toBeFalsy()
  })

  it('sends a lost answer again as the same write, so that it is saved once', async () => {
    const { settled, rename } = open()
    trouble = [() => 'lost']
    rename('a', 'once')
    await waitFor(() => expect(sent.length).toBe(2), { timeout: 6000 })
    await settled(2)
    expect(sent[1]![0]!.write).toBe(sent[0]![0]!.write)
    expect(kept.get('a')!.version).toBe(2)
  }, 10_000)

  it('says so while the server is away and saves once it is back', async () => {
    const { week, settled, rename } = open()
    trouble = [() => 'away']
    rename('a', 'kept')
    await waitFor(() => expect(week.current.doc.is).toBe('away'))
    expect(week.current.drafts[0]!.name).toBe('kept')
    await waitFor(() => expect(week.current.doc.is).toBe('saved'), { timeout: 6000 })
    await settled(2)
    expect(kept.get('a')!.name).toBe('kept')
  }, 10_000)

  it('writes over somebody else only when told to, and keeps what they added', async () => {
    const { week, rename, names } = open()
    kept.set('a', { ...session('a'), name: 'of Jory', version: 2 })
    kept.set('theirs', session('theirs'))
    rename('a', 'mine')
    await waitFor(() => expect(week.current.doc.is).toBe('stale'))
    expect(names()).toBe('mine b')
    expect(kept.get('a')!.name).toBe('of Jory')
    act(() => week.current.settle('mine'))
    await waitFor(() => expect(week.current.doc.is).toBe('saved'))
    expect(kept.get('a')!.name).toBe('mine')
    expect(kept.get('theirs')!.gone).toBeFalsy()
    expect(names()).toBe('mine b theirs')
  })

  it('takes theirs, and what was mine comes back by undo', async () => {
    const { week, rename, names } = open()
    kept.set('a', { ...session('a'), name: 'of Jory', version: 2 })
    rename('a', 'mine')
    await waitFor(() => expect(week.current.doc.is).toBe('stale'))
    act(() => week.current.settle('theirs'))
    expect(names()).toBe('of Jory b')
    act(() => week.current.undo())
    await waitFor(() => expect(kept.get('a')!.name).toBe('mine'))
  })

  it('keeps what somebody added while the next edit is under way', async () => {
    const { week, rename } = open()
    kept.set('theirs', session('theirs'))
    rename('a', 'first')
    await waitFor(() => expect(sent.length).toBe(1))
    rename('a', 'second')
    await waitFor(() => expect(kept.get('a')!.name).toBe('second'))
    await waitFor(() => expect(week.current.doc.is).toBe('saved'))
    expect(kept.get('theirs')!.gone).toBeFalsy()
  })

  it('keeps what was refused on the screen and says why', async () => {
    const { week, rename, names } = open()
    trouble = [() => json(422, {})]
    rename('a', '')
    await waitFor(() => expect(week.current.doc).toMatchObject({ is: 'refused', why: 'refused' }))
    expect(names()).toBe(' b')
  })

  it('looks at a week that is only tried without keeping it', async () => {
    const { week } = open()
    act(() => week.current.look(week.current.drafts.slice(1)))
    await waitFor(() => expect(api.POST).toHaveBeenCalled())
    expect(week.current.drafts).toHaveLength(2)
    expect(sent).toHaveLength(0)
  })
})
