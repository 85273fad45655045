import { describe, expect, it } from 'vitest'
import { copies, moveDay, moveSlot } from './move'
import { laterBy } from '../../ui/days'
import type { Drafts } from './useWeek'

const week = (): Drafts =>
  ['a', 'b'].map((id, i) => ({
    id,
    version: 3,
    name: id,
    planned_on: `2026-11-2${4 + i}`,
    warm_up_min: 5,
    combos: [{ id: `c${id}`, between_s: 0, after_s: 90 }],
    slots: [1, 2, 3].map((n) => ({
      id: `${id}${n}`,
      movement: 'x',
      settings: {},
      rows: [{ id: `${id}${n}r`, sets: 3, reps_low: 8, reps_high: 12, reserve: 2, rest_s: 90 }],
      cues: [],
      combo: n > 1 ? `c${id}` : undefined,
    })),
  }))

const order = (d: Drafts) => d.map((s) => s.slots.map((x) => x.id).join(' '))

describe('a week on the board', () => {
  it('moves slots within and between sessions', () => {
    expect(order(moveSlot(week(), 'a1', { session: 'a', at: 3 }))).toEqual(['a2 a3 a1', 'b1 b2 b3'])
    expect(order(moveSlot(week(), 'a3', { session: 'a', at: 0 }))).toEqual(['a3 a1 a2', 'b1 b2 b3'])
    expect(order(moveSlot(week(), 'a1', { session: 'a', at: 1 }))).toEqual(['a1 a2 a3', 'b1 b2 b3'])
    const over = moveSlot(week(), 'a2', { session: 'b', at: 1 })
    expect(order(over)).toEqual(['a1 a3', 'b1 a2 b2 b3'])
    expect(over[1]!.slots[1]!.combo).toBeUndefined()
    expect(moveSlot(week(), 'nothing', { session: 'b', at: 1 })).toEqual(week())
    expect(moveSlot(week(), 'a1', { session: 'gone', at: 1 })).toEqual(week())
  })
  it('moves days and copies with ids of their own', () => {
    expect(moveDay(week(), 'b', '2026-11-28')[1]!.planned_on).toBe('2026-11-28')
    expect(laterBy('2026-12-28', 7)).toBe('2027-01-04')
    const next = copies(week(), 7)
    expect(next[0]!.planned_on).toBe('2026-12-01')
    expect(next[0]!.version).toBe(0)
    const ids = new Set([...week(), ...next].flatMap((d) => [d.id, ...d.slots.map((s) => s.id)]))
    expect(ids.size).toBe(16)
    expect(next[0]!.slots[1]!.combo).toBe(next[0]!.slots[2]!.combo)
    expect(next[0]!.slots[1]!.combo).not.toBe('ca')
    expect(next[0]!.combos).toEqual([{ id: next[0]!.slots[1]!.combo, between_s: 0, after_s: 90 }])
    expect(next[0]!.slots[0]!.rows[0]).toMatchObject({ sets: 3, rest_s: 90 })
    expect(next[0]!.slots[0]!.rows[0]!.id).not.toBe('a1r')
  })
})
