import { expect, test } from 'vitest'
import { next, opened, sameAs, type Doc, type Event, type Failure } from './doc'

type D = Doc<string, number>
const start = (): D => opened({ value: 'a', base: 1 })
const run = (doc: D, ...events: Event<string, number>[]) => events.reduce((d, e) => next(d, e), doc)
const edit = (value: string, label = '', now = 0): Event<string, number> => ({ did: 'edit', value, label, now })
const send: Event<string, number> = { did: 'send', write: 'w' }
const keep = (value: string, base: number): Event<string, number> => ({ did: 'keep', there: { value, base } })
const fail = (f: Failure<string, number>): Event<string, number> => ({ did: 'fail', with: f })
const theirs = { value: 'theirs', base: 5, by: 'Jory' }
const stale = fail({ is: 'stale', why: 'saved in between', theirs })
const away = fail({ is: 'away', why: 'gone' })

test('what is typed goes its way: dirty, saving, saved', () => {
  const typed = run(start(), edit('b'))
  expect(typed).toMatchObject({ is: 'dirty', value: 'b', past: ['a'] })
  const sent = run(typed, send)
  expect(sent).toMatchObject({ is: 'saving', attempt: { write: 'w', value: 'b' } })
  expect(run(sent, keep('b', 2))).toMatchObject({ is: 'saved', there: { base: 2 }, attempt: null })
  expect(run(sent, edit('c'), keep('b', 2))).toMatchObject({ is: 'dirty', value: 'c', there: { base: 2 } })
})

test('back to what the server has is nothing to save, unless something else may have reached it', () => {
  expect(run(start(), edit('b'), { did: 'undo' })).toMatchObject({ is: 'saved', value: 'a', future: ['b'] })
  expect(run(start(), edit('b'), send, away, { did: 'undo' })).toMatchObject({ is: 'dirty', value: 'a' })
  expect(run(start(), edit('b'), send, { did: 'undo' })).toMatchObject({ is: 'dirty' })
})

test('every state keeps what is typed, and says what is wrong with it only as long as it is that', () => {
  const sent = run(start(), edit('b'), send)
  const faults = [{ field: 'x', reason: 'too much' }]
  const wrong = fail({ is: 'refused', why: 'no', faults })
  expect(run(sent, away)).toMatchObject({ is: 'away', value: 'b', unanswered: ['b'] })
  expect(run(sent, away, send)).toMatchObject({ is: 'away' })
  expect(run(sent, wrong)).toMatchObject({ is: 'refused', value: 'b', faults })
  expect(run(sent, edit('c'), wrong)).toMatchObject({ is: 'dirty', value: 'c', faults: [] })
  expect(run(sent, wrong, edit('c'))).toMatchObject({ is: 'dirty', faults: [] })
  expect(run(sent, fail({ is: 'asked', why: 'so?' }))).toMatchObject({ is: 'asked', why: 'so?', sure: false })
  expect(run(sent, fail({ is: 'asked', why: 'so?' }), { did: 'itIsSo' })).toMatchObject({ is: 'dirty', sure: true })
  expect(run(sent, fail({ is: 'asked', why: 'so?' }), { did: 'itIsSo' }, edit('c'))).toMatchObject({ sure: false })
  expect(run(sent, { did: 'itIsSo' })).toMatchObject({ is: 'saving', sure: false })
})

test('nothing goes over somebody else before it is settled, whatever is typed meanwhile', () => {
  const clash = run(start(), edit('mine'), send, stale)
  expect(clash).toMatchObject({ is: 'stale', value: 'mine', theirs })
  expect(run(clash, edit('more of mine'))).toMatchObject({ is: 'stale', value: 'more of mine' })
  expect(run(clash, { did: 'settle', which: 'mine' })).toMatchObject({ is: 'dirty', value: 'mine', there: { base: 5 } })
  const taken = run(clash, { did: 'settle', which: 'theirs' })
  expect(taken).toMatchObject({ is: 'saved', value: 'theirs', past: ['a', 'mine'] })
  expect(run(taken, { did: 'undo' })).toMatchObject({ is: 'dirty', value: 'mine', there: { base: 5 } })
})

test('what was sent from here and never answered is nobody else’s', () => {
  const lost = run(start(), edit('b'), send, away, edit('c'), send)
  const mine = fail({ is: 'stale', why: '', theirs: { value: 'b', base: 2 } })
  expect(run(lost, mine)).toMatchObject({ is: 'dirty', value: 'c', there: { base: 2 }, unanswered: [] })
  expect(run(lost, stale)).toMatchObject({ is: 'stale', value: 'c' })
})

test('what arrives is taken only while nothing is unsaved here, and only when it is news', () => {
  const arrive = (value: string, base: number): Event<string, number> => ({ did: 'arrive', there: { value, base } })
  expect(run(start(), arrive('new', 2))).toMatchObject({ value: 'new', there: { base: 2 } })
  expect(run(start(), arrive('old', 1))).toMatchObject({ value: 'a' })
  expect(run(start(), edit('b'), arrive('new', 2))).toMatchObject({ value: 'b', there: { base: 1 } })
  const saved = run(start(), edit('b'), send, keep('b', 2))
  expect(run(saved, arrive('b', 3))).toMatchObject({ past: ['a'], there: { base: 3 } })
})

test('edits of one label within a second are one step back, and any way through undo and redo comes back', () => {
  const typed = run(
    start(),
    edit('b', 'name', 0),
    edit('bc', 'name', 900),
    edit('bcd', 'name', 1800),
    edit('x', 'other', 1900),
  )
  expect(typed.past).toEqual(['a', 'bcd'])
  const back = run(typed, { did: 'undo' }, { did: 'undo' }, { did: 'undo' })
  expect(back.value).toBe('a')
  expect(run(back, { did: 'redo' }, { did: 'redo' }, { did: 'redo' }).value).toBe('x')
})

test('parts in another order say the same', () => {
  expect(sameAs([{ a: 1, b: { c: 2, d: undefined } }], [{ b: { c: 2 }, a: 1 }])).toBe(true)
  expect(sameAs([1, 2], [2, 1])).toBe(false)
})

test('what somebody else added is taken in wherever theirs becomes what is gone over', () => {
  const list = opened({ value: ['a'], base: 1 })
  const merge = (v: string[], known: string[][], there: { value: string[] }) => [
    ...v,
    ...there.value.filter((x) => ![v, ...known].some((k) => k.includes(x))),
  ]
  const go = (d: Doc<string[], number>, ...e: Event<string[], number>[]) => e.reduce((x, y) => next(x, y, merge), d)
  const typed = go(list, { did: 'edit', value: ['a', 'b'], label: '', now: 0 }, send)
  const more = go(typed, { did: 'edit', value: ['b'], label: '', now: 0 })
  expect(go(more, { did: 'keep', there: { value: ['a', 'b', 'theirs'], base: 2 } }).value).toEqual(['b', 'theirs'])
  const clash = go(more, { did: 'fail', with: { is: 'stale', why: '', theirs: { value: ['a', 'theirs'], base: 2 } } })
  expect(go(clash, { did: 'settle', which: 'mine' }).value).toEqual(['b', 'theirs'])

  // No step back takes it away from them.
  const kept = go(typed, { did: 'keep', there: { value: ['a', 'b', 'theirs'], base: 2 } })
  expect(go(kept, { did: 'undo' }).value).toEqual(['a', 'theirs'])
  const theirs = go(clash, { did: 'settle', which: 'theirs' })
  expect(go(theirs, { did: 'undo' }).value).toEqual(['b', 'theirs'])
})
