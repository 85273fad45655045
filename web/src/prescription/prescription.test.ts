import { describe, expect, it, test } from 'vitest'
import type { Combo, Row, SlotDraft } from '../api/client'
import { join, joined, restOf, withRest } from './combos'
import { alike, doseOf, rowsOf, sameLoad, withDose } from './rows'

const row = (more: Partial<Row> = {}): Row => ({
  id: 'r1',
  sets: 3,
  reps_low: 8,
  reps_high: 12,
  reserve: 2,
  rest_s: 90,
  load: { kg: 14 },
  ...more,
})
const slot = (id: string, more: Partial<SlotDraft> = {}): SlotDraft => ({
  id,
  movement: 'curl',
  settings: {},
  rows: [row({ id: `${id}r` })],
  cues: [],
  ...more,
})

describe('rows as one dose', () => {
  it('is one dose where all sets are alike, and comes back with its id', () => {
    const dose = doseOf([row()])!
    expect(dose).toMatchObject({ sets: 3, load: { kg: 14 } })
    expect(dose.reserves).toBeUndefined()
    expect(rowsOf(dose, [row()])).toEqual([row()])
  })
  it('lists what differs set by set, and writes a row for each run', () => {
    const rows = [
      row({ sets: 1, reserve: 3, movement: 'other' }),
      row({ id: 'r2', sets: 2, reserve: 1, load: undefined }),
    ]
    const dose = doseOf(rows)!
    expect(dose).toMatchObject({ sets: 3, reserves: [3, 1, 1], hands: [{ movement: 'other' }, {}, {}] })
    expect(rowsOf(dose, rows)).toEqual(rows) // a load that is not there is that of the row above
    expect(rowsOf({ ...dose, sets: 2 }, rows).map((r) => r.sets)).toEqual([1, 1])
    expect(rowsOf({ ...dose, reserves: undefined, hands: undefined }, rows)).toHaveLength(1)
  })
  it('has no dose where rows differ in more, which can be made alike', () => {
    const rows = [row(), row({ id: 'r2', sets: 1, reps_low: 15, reps_high: 20, load: { share: 0.6 } })]
    expect(doseOf(rows)).toBeUndefined()
    expect(doseOf([])).toBeUndefined()
    expect(alike(rows)).toMatchObject([{ id: 'r1', sets: 4, load: { kg: 14 } }])
    expect(withDose(slot('a'), doseOf(alike(rows))!).rows[0]!.sets).toBe(4)
  })
  it('knows one load from another whatever the order', () => {
    expect(sameLoad({ kg: 1, unit: 'kg' }, { unit: 'kg', kg: 1 })).toBe(true)
    expect(sameLoad({ kg: 1 }, { added_kg: 1 })).toBe(false)
    expect(sameLoad(undefined, { find: true })).toBe(false)
  })
})

test('slots are joined, rest as their combo says, and are taken apart', () => {
  const apart: { slots: SlotDraft[]; combos?: Combo[] } = {
    slots: [slot('a'), slot('b', { rows: [row({ rest_s: 120 })] }), slot('c')],
  }
  const two = join(apart, 'a', 20, 90)
  expect(joined(two.slots, 0)).toBe(true)
  expect(joined(two.slots, 1)).toBe(false)
  expect([0, 1, 2].map((i) => restOf(two, i))).toEqual([20, 120, undefined])
  expect(restOf(withRest(two, 0, 45), 0)).toBe(45)
  expect(withRest(two, 2, 45)).toBe(two)
  const three = join(two, 'b', 20, 90)
  expect(three.combos).toHaveLength(1)
  expect(new Set(three.slots.map((s) => s.combo)).size).toBe(1)
  const again = join(three, 'a', 20, 90)
  expect(again.slots.every((s) => !s.combo)).toBe(true)
  expect(again.combos).toEqual([])
  expect(again.slots[1]!.rows[0]!.rest_s).toBe(120)
  expect(join(apart, 'c', 0, 90)).toBe(apart)
})
