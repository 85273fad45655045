import { expect, test } from 'vitest'
import { ahead, nextPair, hurtAgain, leastLoss, minutesAhead, now, outFor, partsOf, repsOf, standing } from './machine'
import type { Done, Event, Ready, ReadySlot } from './types'

const loads = [8, 10, 12, 14].map((kg) => ({ whole_kg: kg, hand_kg: kg, words: `${kg} kg` }))

const slot = (id: string, sides: string[], more: Partial<ReadySlot> = {}) =>
  ({
    id,
    title: id,
    short: id,
    sides,
    loads,
    marks: [],
    rows: [
      {
        id: `row ${id}`,
        sets: 2,
        low: 8,
        high: 12,
        reserve: 2,
        rest_s: 90,
        loads: [2],
        aim: 10,
        stages: [{ words: '', reps: 10, is: 'clean' }],
        taken: [],
        set_up: { movement: id, settings: {} },
      },
    ],
    ahead: [6, 3, 0],
    leave: [{ slot: 0, minutes: 6, loses: id === 'curl' ? 2 : 1, words: '' }, null, null],
    tries: [
      {
        kind: 'lighter',
        set_up: { movement: id, settings: {} },
        loads,
        start: 0,
        more: 5,
        reserve: 3,
        words: 'lighter',
      },
    ],
    ladder: [[0, 0]],
    after: [id === 'curl' ? 'out' : 'away'],
    ...more,
  }) as unknown as ReadySlot

const step = (at: number, set: number, side: string, rest: number, own = 0) => ({
  slot: at,
  set,
  side,
  row: 0,
  in_row: set,
  rest_s: rest,
  own_s: own,
  about_s: 40,
})

const ready = {
  says: [],
  joints: [{ id: 'wrist', words: 'wrist' }],
  pain: { over: 3, rising: 2, settle_s: 120, reserve: 3, low: 2 },
  slots: [slot('curl', ['left', 'right']), slot('press', ['both'])],
  steps: [
    step(0, 0, 'left', 0),
    step(0, 0, 'right', 0),
    step(0, 1, 'right', 0, 90),
    step(0, 1, 'left', 0, 90),
    step(1, 0, 'both', 90),
    step(1, 1, 'both', 90),
  ],
} as unknown as Ready

const none = { sets: [], events: [] } as unknown as Done
const at = (s: number) => new Date(Date.UTC(2026, 10, 27, 18, 0, s)).toISOString()
const set = (id: string, of: string, no: number, side: string, s: number, more: object = {}): Event =>
  ({
    id,
    no,
    kind: 'set',
    at: at(s),
    offset_ms: 0,
    version: 1,
    set: { slot: of, side, set_no: no, reps: 10, whole_kg: 12, reserve: 2, ...more },
  }) as Event
const told = (id: string, s: number, content: object): Event =>
  ({ id, no: 1, at: at(s), offset_ms: 0, version: 1, ...content }) as unknown as Event

test('arm after arm, the other arm’s set is rest', () => {
  const first = now(ready, standing(ready, none, []))!
  expect([first.side, first.setNo, first.restFrom]).toEqual(['left', 1, 0])
  const second = now(ready, standing(ready, none, [set('a', 'curl', 1, 'left', 0)]))!
  expect([second.side, second.setNo, second.restS]).toEqual(['right', 1, 0])
  const third = now(ready, standing(ready, none, [set('a', 'curl', 1, 'left', 0), set('b', 'curl', 1, 'right', 50)]))!
  expect([third.side, third.restS, third.restFrom]).toEqual(['right', 90, Date.parse(at(50))])
  const fourth = now(
    ready,
    standing(ready, none, [
      set('a', 'curl', 1, 'left', 0),
      set('b', 'curl', 1, 'right', 50),
      set('c', 'curl', 2, 'right', 150),
    ]),
  )!
  expect([fourth.side, fourth.restFrom]).toEqual(['left', Date.parse(at(0))])
})

test('what is left out goes from the end, and comes back when it is taken back', () => {
  const out = told('o', 5, { kind: 'left_out', left_out: { slot: 'curl', sets: 2, reason: 'time' } })
  expect(ahead(ready, standing(ready, none, [out])).map((s) => [s.slot, s.set])).toEqual([
    [0, 0],
    [0, 0],
    [1, 0],
    [1, 1],
  ])
  const back = told('u', 6, { kind: 'undone', undone: 'o' })
  expect(ahead(ready, standing(ready, none, [out, back]))).toHaveLength(6)
})

test('a set put right stands once, one taken away not at all, one the server has already not twice', () => {
  const a = set('a', 'curl', 1, 'left', 0)
  const right = set('b', 'curl', 1, 'left', 9, { reps: 8, replaces: 'a' })
  expect(standing(ready, none, [a, right]).sets.map((s) => s.reps)).toEqual([8])
  const gone = set('c', 'curl', 1, 'left', 9, { replaces: 'a', withdrawn: true })
  expect(standing(ready, none, [a, gone]).sets).toEqual([])
  const there = {
    ...none,
    sets: [
      { id: 'a', slot: 'curl', side: 'left', set_no: 1, reps: 10, whole_kg: 12, reserve: 2, at: at(0), parts: [] },
    ],
  }
  expect(standing(ready, there as unknown as Done, [a]).sets).toHaveLength(1)
})

test('after pain a slot goes on as what is tried; over 3 again what loads the joint is out', () => {
  const swap = told('s', 5, {
    kind: 'swap',
    swap: { slot: 'press', kind: 'lighter', joint: 'wrist', movement: 'press', settings: {}, reserve: 3, now: 2 },
  })
  const tried = now(ready, standing(ready, none, [swap]), 'press')!
  expect([tried.load, tried.low, tried.reserve]).toEqual([0, 13, 3])
  const once = standing(ready, none, [
    told('p', 1, { kind: 'pain', pain: { slot: 'press', joint: 'wrist', side: 'left', score: 5, when: 'end' } }),
  ])
  expect(hurtAgain(ready, once)).toEqual([])
  const again = standing(ready, none, [
    swap,
    told('p', 9, { kind: 'pain', pain: { slot: 'press', joint: 'wrist', side: 'left', score: 5, when: 'end' } }),
  ])
  expect(hurtAgain(ready, again)).toEqual(['wrist'])
  expect(outFor(ready, again, 'wrist').map((o) => [o.slot.id, o.sets])).toEqual([['curl', 4]])
  expect(now(ready, again, 'press')!.reserve).toBe(3)
})

test('time is summed by slot, and what costs least for its minutes is offered', () => {
  const begin = standing(ready, none, [])
  expect(minutesAhead(ready, begin)).toBe(12)
  expect(leastLoss(ready, begin)?.slot.id).toBe('press')
  const half = standing(ready, none, [set('a', 'curl', 1, 'left', 0), set('b', 'curl', 1, 'right', 50)])
  expect(minutesAhead(ready, half)).toBe(9)
})

test('stages become parts: a rung with its load, an uncounted arm not at all', () => {
  const drop = [
    { words: '', reps: 12, is: 'clean' },
    { words: 'lighter', reps: 7, is: 'clean', rung: 1, pause_s: 10 },
  ]
  expect(partsOf(drop, loads, [3, 1])).toEqual([
    { kind: 'clean', reps: 12 },
    { kind: 'clean', reps: 7, pause_s: 10, load_kg: 10 },
  ])
  expect(repsOf(drop)).toBe(12)
  const ladder = ['', 'clean', 'clean', 'clean'].map((is) => ({ words: 'x', reps: 5, is }))
  expect(repsOf(ladder)).toBe(15)
  expect(partsOf(ladder, loads, [])).toHaveLength(3)
  expect(partsOf([{ words: '', reps: 9, is: 'clean' }], loads, [])).toEqual([])
})

test('two in turns go on so from where they are, until it is taken back', () => {
  const b = (set: number, rest: number) => step(1, set, 'both', rest)
  const way = {
    saves: 3,
    words: 'in turns',
    ahead: [8, 6, 4, 2, 0],
    steps: [b(0, 10), step(0, 1, 'right', 60), step(0, 1, 'left', 0, 60), b(1, 10)],
  }
  const may = {
    ...ready,
    slots: [slot('curl', ['left', 'right'], { pair: { with: 1, ways: [{ ...way, saves: 0 }, way] } }), ready.slots[1]!],
  }
  const both = [set('a', 'curl', 1, 'left', 0), set('b', 'curl', 1, 'right', 50)]
  expect(nextPair(may, standing(may, none, []))).toBeNull()
  expect(nextPair(may, standing(may, none, both))).toMatchObject({ done: 1 })
  const paired = told('p', 60, { kind: 'paired', paired: { slot: 'curl', done: 1 } })
  const on = standing(may, none, [...both, paired])
  expect(ahead(may, on).map((s) => [s.slot, s.set])).toEqual([
    [1, 0],
    [0, 1],
    [0, 1],
    [1, 1],
  ])
  expect(now(may, on)).toMatchObject({ inTurns: 'curl', restS: 10 })
  expect(minutesAhead(may, on)).toBe(8)
  expect(nextPair(may, on)).toBeNull()
  const undone = standing(may, none, [set('b', 'curl', 1, 'right', 50), paired])
  expect(ahead(may, undone)[0]).toMatchObject({ slot: 0, set: 0, side: 'left' })
  const back = told('u', 70, { kind: 'undone', undone: 'p' })
  expect(ahead(may, standing(may, none, [...both, paired, back]))[0]!.slot).toBe(0)
})
