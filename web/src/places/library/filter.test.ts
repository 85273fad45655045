import { expect, test } from 'vitest'
import type { LibraryEntry } from '../../api/client'
import { fits, noFilter, sorted } from './filter'

const entry = (id: string, bias: number, more: Partial<LibraryEntry> = {}) =>
  ({
    id,
    name: id.replaceAll('_', ' '),
    heads: [{ id: 'biceps_long', bias, low: bias, high: bias, zone: 'long' }],
    joints: [{ name: 'wrist', score: 2 }],
    hardest: 'long',
    hand: 'up',
    arms: 'two',
    load: 'free',
    safe_alone: 'yes',
    lacks: [],
    ...more,
  }) as unknown as LibraryEntry

test('every filter must pass', () => {
  const e = entry('curl_reclined', 1.1)
  expect(fits(e, noFilter)).toBe(true)
  expect(fits(e, { ...noFilter, head: 'biceps_long', least: 1.1, zone: 'long' })).toBe(true)
  expect(fits(e, { ...noFilter, head: 'biceps_long', least: 1.2 })).toBe(false)
  expect(fits(e, { ...noFilter, head: 'biceps_long', zone: 'short' })).toBe(false)
  expect(fits(e, { ...noFilter, joint: 'wrist' })).toBe(false)
  expect(fits(e, { ...noFilter, joint: 'elbow back' })).toBe(true)
  expect(fits(e, { ...noFilter, hardest: 'short' })).toBe(false)
  expect(fits(entry('x', 1, { safe_alone: 'pins' }), { ...noFilter, alone: true })).toBe(false)
  expect(fits(entry('x', 1, { lacks: ['a pad'] }), { ...noFilter, room: true })).toBe(false)
  expect(fits(entry('x', 0), { ...noFilter, head: 'biceps_long' })).toBe(false)
})

test('the greatest bias for the head comes first', () => {
  const list = [entry('a', 0.8), entry('b', 1.2), entry('c', 1)]
  expect(sorted(list, 'biceps_long').map((e) => e.id)).toEqual(['b', 'c', 'a'])
  expect(sorted(list, '')).toBe(list)
})
