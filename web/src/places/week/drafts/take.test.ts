import { expect, test } from 'vitest'
import type { DraftedWeek, WeekDraft } from '../../../api/client'
import { takeAll, takeSlot } from './take'

const slot = (id: string) => ({ id, movement: 'curl_reclined', settings: {}, rows: [], cues: [] })
const session = (id: string, on: string, ...slots: string[]) =>
  ({ id, version: 1, name: id, planned_on: on, warm_up_min: 5, slots: slots.map(slot) }) as unknown as WeekDraft
const drafted = (sessions: WeekDraft[], removed: string[]) => ({ sessions, removed }) as unknown as DraftedWeek

test('a whole draft replaces what it changes, adds what is new and takes out what it empties', () => {
  const board = [session('a', '2026-11-30', 'x'), session('b', '2026-12-01', 'y'), session('c', '2026-12-02', 'z')]
  const week = drafted([session('a', '2026-11-30', 'n'), session('d', '2026-12-03', 'm')], ['b'])
  expect(takeAll(board, week).map((s) => [s.id, s.slots.map((x) => x.id)])).toEqual([
    ['a', ['n']],
    ['c', ['z']],
    ['d', ['m']],
  ])
})

test('one slot comes beside what is there, once, and makes its session where there is none', () => {
  const board = [session('a', '2026-11-30', 'x')]
  const week = drafted([session('a', '2026-11-30', 'x', 'n'), session('d', '2026-12-03', 'm', 'o')], [])
  const once = takeSlot(board, week, 'a', 'n')
  expect(once[0]!.slots.map((s) => s.id)).toEqual(['x', 'n'])
  expect(takeSlot(once, week, 'a', 'n')[0]!.slots.map((s) => s.id)).toEqual(['x', 'n'])
  const made = takeSlot(board, week, 'd', 'o')
  expect(made.map((s) => [s.id, s.slots.map((x) => x.id)])).toEqual([
    ['a', ['x']],
    ['d', ['o']],
  ])
  expect(takeSlot(made, week, 'd', 'm')[1]!.slots.map((s) => s.id)).toEqual(['o', 'm'])
  expect(takeSlot(board, week, 'd', 'none')).toBe(board)
})
