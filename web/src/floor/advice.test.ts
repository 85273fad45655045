import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { advised, mostOver, outcome } from './advice'
import type { Move, ReadySlot, SetHere } from './types'

interface Golden {
  most_over: number
  slots: { rows: ReadySlot['rows']; marks: number[]; table: ReadySlot['table'] }[]
  walks: { slot: number; sets: { mark: number; reps: number; reserve: number; technical: boolean }[]; moves: Move[] }[]
}

/** What the core's own function advised on made-up sets, beside the tables a device has of it. */
const golden = JSON.parse(readFileSync('../internal/core/floor/testdata/walks.json', 'utf8')) as Golden

const slotOf = (s: Golden['slots'][number]) =>
  ({
    sides: ['both'],
    rows: s.rows,
    marks: s.marks.map((_, i) => i),
    loads: s.marks.map((kg) => ({ whole_kg: kg, hand_kg: kg, words: '' })),
    table: s.table,
  }) as unknown as ReadySlot

test('the table gives what the core advises, after every set of every walk', () => {
  expect(golden.walks.length).toBeGreaterThan(200)
  expect(mostOver).toBe(golden.most_over)
  for (const w of golden.walks) {
    const slot = slotOf(golden.slots[w.slot]!)
    w.moves.forEach((move, n) => {
      const sets = w.sets.slice(0, n + 1).map((s, i) => ({
        setNo: i + 1,
        reps: s.reps,
        reserve: s.reserve,
        technical: s.technical,
        wholeKg: golden.slots[w.slot]!.marks[s.mark]!,
      })) as SetHere[]
      const got = advised(slot, sets)
      expect(got.move).toEqual(move)
      expect(got.ended).toBe(move.end ?? false)
    })
  }
})

test('of two arms the one that did less decides', () => {
  const row = { low: 8, high: 12, reserve: 2 }
  const set = (reps: number, technical = false) => ({ reps, reserve: 2, technical }) as SetHere
  expect(outcome([set(14), set(9)], row)).toBe(outcome([set(9)], row))
  expect(outcome([set(10, true), set(10)], row)).toBe(outcome([set(10)], row) + 13)
  expect(outcome([set(60)], row)).toBe(12)
  expect(outcome([set(0)], row)).toBe(0)
})
