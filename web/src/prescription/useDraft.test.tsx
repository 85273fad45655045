import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { api, Problem, type SessionView } from '../api/client'
import { readTempo } from './Tempo'
import { keep, readKept } from '../app/kept'
import { useDraft, type Draft } from './useDraft'

const session = {
  id: 's1',
  name: 'Monday',
  planned_on: '2026-11-30',
  warm_up_min: 5,
  version: 1,
  saved_at: '2026-11-25T10:00:00Z',
  saved_by: 'Wren',
  slots: [],
} as unknown as SessionView

interface Sent {
  name: string
  version: number
  write: string
}

const keptDraft = () => readKept<{ value: Draft }>(localStorage, 'doc session/c1/s1')?.value ?? null

let sent: Sent[]
let answers: (() => Response)[]
const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const saved = (version: number) => () => json(200, { ...session, version })

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  sent = []
  answers = []
  vi.spyOn(api, 'PUT').mockImplementation((async (_path: string, init: { body: Sent }) => {
    sent.push(init.body)
    const answer = answers.shift()
    if (!answer) throw new Problem(0, 'no network')
    const response = answer()
    const body: unknown = await response.clone().json()
    return response.ok ? { data: body, response } : { error: body, response }
  }) as never)
})

afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

function open() {
  const queries = new QueryClient()
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  )
  const hook = renderHook(() => useDraft('c1', session), { wrapper })
  leave = hook.unmount
  return hook.result
}

let leave: () => void

const rename = (name: string) => (d: { name: string }) => ({ ...d, name }) as never
const pass = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)))

test('edits are kept at once, saved a moment later and let go of', async () => {
  answers.push(saved(2))
  const draft = open()
  act(() => draft.current.edit('name', rename('Tuesday')))
  expect(draft.current.doc.is).toBe('dirty')
  expect(keptDraft()?.name).toBe('Tuesday')
  await pass(600)
  expect(sent).toMatchObject([{ name: 'Tuesday', version: 1 }])
  expect(draft.current.doc.is).toBe('saved')
  expect(keptDraft()).toBeNull()
})

test('a lost answer is asked for again as the same save', async () => {
  const draft = open()
  act(() => draft.current.edit('name', rename('Tuesday')))
  await pass(600)
  expect(draft.current.doc.is).toBe('away')
  expect(keptDraft()?.name).toBe('Tuesday')
  answers.push(saved(2))
  await pass(2100)
  expect(draft.current.doc.is).toBe('saved')
  expect(sent).toHaveLength(2)
  expect(sent[1]!.write).toBe(sent[0]!.write)
})

test('going back to what is saved needs no save', async () => {
  answers.push(saved(2), saved(3), saved(4))
  const draft = open()
  act(() => draft.current.edit('', rename('Tuesday')))
  await pass(600)
  act(() => draft.current.edit('', rename('Friday')))
  act(() => draft.current.undo())
  await pass(600)
  act(() => draft.current.redo())
  await pass(600)
  expect(new Set(sent.map((s) => s.write)).size).toBe(sent.length)
  expect(sent.map((s) => [s.name, s.version])).toEqual([
    ['Tuesday', 1],
    ['Friday', 2],
  ])
})

test('a refusal keeps what was typed and names the field', async () => {
  answers.push(() =>
    json(422, {
      detail: 'too little rest',
      errors: [{ location: 'body.slots[0].rows[0].rest_s', message: 'too little rest' }],
    }),
  )
  const draft = open()
  act(() => draft.current.edit('', rename('Tuesday')))
  await pass(600)
  expect(draft.current.doc).toMatchObject({ is: 'refused', faults: [{ field: 'slots[0].rows[0].rest_s' }] })
  expect(draft.current.draft.name).toBe('Tuesday')
})

test("somebody else's save is shown and nothing goes over it until it is settled", async () => {
  const theirs = { ...session, name: 'Theirs', version: 5 }
  answers.push(() => json(409, { detail: 'saved in between', current: theirs }), saved(6))
  const draft = open()
  act(() => draft.current.edit('', rename('Mine')))
  await pass(600)
  expect(draft.current.doc).toMatchObject({ is: 'stale', theirs: { value: { name: 'Theirs' } } })
  await pass(5000)
  expect(sent).toHaveLength(1)
  await act(async () => draft.current.settle('mine'))
  await pass(600)
  expect(sent[1]).toMatchObject({ name: 'Mine', version: 5 })
  expect(draft.current.doc.is).toBe('saved')
})

test('edits of one label within a second are undone together', () => {
  const draft = open()
  act(() => draft.current.edit('name', rename('T')))
  act(() => draft.current.edit('name', rename('Tu')))
  act(() => draft.current.edit('name', rename('Tue')))
  act(() => draft.current.undo())
  expect(draft.current.draft.name).toBe('Monday')
  act(() => draft.current.redo())
  expect(draft.current.draft.name).toBe('Tue')
})

test('what was left unsaved is there again after a reload', async () => {
  const first = open()
  act(() => first.current.edit('', rename('Half typed')))
  leave() // the last try fails: there is no network
  await pass(5000)
  answers.push(saved(2))
  const again = open()
  expect(again.current.draft.name).toBe('Half typed')
  expect(again.current.canUndo).toBe(true)
  await pass(600)
  expect(again.current.doc.is).toBe('saved')
})

test('what an earlier version of the page left is taken up, over the version it was typed on', async () => {
  keep(localStorage, 'draft 2 s1', {
    version: 1,
    draft: { id: 's1', name: 'Of before', planned_on: '2026-11-30', warm_up_min: 5, slots: [] },
  })
  answers.push(saved(2))
  const draft = open()
  expect(draft.current.draft.name).toBe('Of before')
  await pass(600)
  expect(sent).toMatchObject([{ name: 'Of before', version: 1 }])
  expect(readKept(localStorage, 'draft 2 s1')).toBeNull()
})

test('a tempo is four numbers, or nothing', () => {
  expect(readTempo('3-1-1-0')).toEqual([3, 1, 1, 0])
  expect(readTempo(' 3 1 1,5 0 ')).toEqual([3, 1, 1.5, 0])
  expect(readTempo('')).toEqual([0, 0, 0, 0])
  expect(readTempo('slow')).toBeNull()
  expect(readTempo('3-1-1')).toBeNull()
})

test('what is asked about is saved as it stands once it is said to be so, and asked again of anything else', async () => {
  const asks = () =>
    json(422, {
      detail: 'Monday 2 November is past.',
      ask: { question: 'Monday 2 November is past. Plan on it all the same?', field: 'body.planned_on', needs: 'sure' },
    })
  answers.push(asks, saved(2), asks)
  const draft = open()
  act(() => draft.current.edit('', (d) => ({ ...d, planned_on: '2026-11-02' })))
  await pass(600)
  expect(draft.current.doc).toMatchObject({ is: 'asked', why: expect.stringContaining('is past') as string })
  await act(async () => draft.current.itIsSo())
  await pass(600)
  expect(draft.current.doc.is).toBe('saved')
  expect(sent[1]).toMatchObject({ sure: true, write: sent[0]!.write })
  act(() => draft.current.edit('', (d) => ({ ...d, planned_on: '2026-10-05' })))
  await pass(600)
  expect(sent[2]).not.toHaveProperty('sure', true)
  expect(draft.current.doc.is).toBe('asked')
})
