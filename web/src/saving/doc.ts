import type { FieldFault } from '../api/client'

/**
 * There is what the server has: the value, what a save goes over (a version, a mark, the value it was), and whose it
 * is.
 */
export interface There<T, B> {
  value: T
  base: B
  at?: string
  by?: string
  /** what is there in words, for whoever has to choose */
  says?: string
}

/**
 * How far a document has come: as the server has it, typed, under way, waiting for network or sign-in, refused with what
 * is wrong, asked about, or changed by somebody else in between.
 */
export type Phase = 'saved' | 'dirty' | 'saving' | 'away' | 'refused' | 'asked' | 'stale'

/** Doc is one thing that is edited and saved as a whole. Values are compared as objects: an edit makes a new one. */
export interface Doc<T, B> {
  value: T
  there: There<T, B>
  is: Phase
  /** the value as it was last sent, and under which id: the same content sent again is the same write */
  attempt: { write: string; value: T } | null
  /** what was sent and never answered: the server may have it */
  unanswered: T[]
  /** what was asked about the value is so */
  sure: boolean
  why: string
  faults: FieldFault[]
  theirs: There<T, B> | null
  past: T[]
  future: T[]
  last: { label: string; at: number }
}

/** What a send that failed comes to. */
export type Failure<T, B> =
  | { is: 'away'; why: string }
  | { is: 'refused'; why: string; faults: FieldFault[] }
  | { is: 'asked'; why: string }
  | { is: 'stale'; why: string; theirs: There<T, B> }

export type Event<T, B> =
  | { did: 'edit'; value: T; label: string; now: number }
  | { did: 'undo' | 'redo' | 'itIsSo' }
  | { did: 'send'; write: string }
  | { did: 'keep'; there: There<T, B> }
  | { did: 'fail'; with: Failure<T, B> }
  | { did: 'settle'; which: 'mine' | 'theirs' }
  | { did: 'arrive'; there: There<T, B> }

const mostUndo = 200
const togetherMs = 1000 // edits of one label within it are undone together

/** opened is a document as the server has it. */
export function opened<T, B>(there: There<T, B>): Doc<T, B> {
  return {
    value: there.value,
    there,
    is: 'saved',
    attempt: null,
    unanswered: [],
    sure: false,
    why: '',
    faults: [],
    theirs: null,
    past: [],
    future: [],
    last: { label: '', at: 0 },
  }
}

/** said writes a value with its parts in one order, whoever wrote it. */
const said = (value: unknown) =>
  JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  )

/** sameAs says whether two values say the same. */
export const sameAs = (a: unknown, b: unknown) => a === b || said(a) === said(b)

/**
 * put is the document with another value: not saved yet, unless it is what the server has and nothing else may have reached
 * it. Nothing goes over somebody else's before it is settled.
 */
function put<T, B>(doc: Doc<T, B>, value: T): Doc<T, B> {
  const nothingNew = !doc.attempt && doc.unanswered.length === 0 && sameAs(value, doc.there.value)
  const is = doc.is === 'stale' ? 'stale' : nothingNew ? 'saved' : 'dirty'
  return { ...doc, value, sure: false, is, why: '', faults: [] }
}

/** Merge takes into what is edited what somebody else added: what is there and in nothing that was known here. */
export type Merge<T, B> = (value: T, known: T[], there: There<T, B>) => T

const asItIs = <T>(value: T) => value

/**
 * over is the document once something else is what is gone over: what somebody else added is taken in, in what may be
 * undone and redone too, so that no step back takes it away from them.
 */
function over<T, B>(doc: Doc<T, B>, there: There<T, B>, merge: Merge<T, B>): Doc<T, B> {
  const known = [doc.there.value, ...doc.unanswered, ...(doc.attempt ? [doc.attempt.value] : [])]
  const take = (value: T) => merge(value, known, there)
  return {
    ...doc,
    value: take(doc.value),
    past: doc.past.map(take),
    future: doc.future.map(take),
    there,
    attempt: null,
    unanswered: [],
    theirs: null,
    why: '',
    faults: [],
  }
}

/** next is what a document becomes by an event. It is pure: who sends, waits and keeps is the outbox. */
export function next<T, B>(doc: Doc<T, B>, e: Event<T, B>, merge: Merge<T, B> = asItIs): Doc<T, B> {
  switch (e.did) {
    case 'edit': {
      if (e.value === doc.value) return doc
      const together = e.label !== '' && e.label === doc.last.label && e.now - doc.last.at < togetherMs
      const past = together ? doc.past : [...doc.past, doc.value].slice(-mostUndo)
      return { ...put(doc, e.value), past, future: [], last: { label: e.label, at: e.now } }
    }
    case 'undo': {
      const before = doc.past.at(-1)
      if (before === undefined) return doc
      return {
        ...put(doc, before),
        past: doc.past.slice(0, -1),
        future: [doc.value, ...doc.future],
        last: { label: '', at: 0 },
      }
    }
    case 'redo': {
      const [after, ...rest] = doc.future
      if (after === undefined) return doc
      return { ...put(doc, after), past: [...doc.past, doc.value], future: rest }
    }
    case 'itIsSo':
      return doc.is === 'asked' ? { ...doc, sure: true, is: 'dirty', why: '' } : doc
    case 'send': // while the network is gone the note stays until an answer comes
      return { ...doc, attempt: { write: e.write, value: doc.value }, is: doc.is === 'away' ? 'away' : 'saving' }
    case 'keep': {
      const done = over(doc, e.there, merge)
      if (doc.attempt && doc.value !== doc.attempt.value) return { ...done, is: 'dirty' }
      return { ...done, value: e.there.value, is: 'saved', sure: false }
    }
    case 'fail':
      return failed(doc, e.with, merge)
    case 'settle': {
      if (!doc.theirs) return doc
      const settled = over(doc, doc.theirs, merge)
      if (e.which === 'mine') return { ...settled, is: 'dirty' }
      return { ...settled, value: doc.theirs.value, is: 'saved', past: [...settled.past, settled.value] }
    }
    case 'arrive':
      if (doc.is !== 'saved' || older(e.there, doc.there)) return doc
      if (sameAs(e.there.value, doc.value)) return { ...doc, there: { at: doc.there.at, by: doc.there.by, ...e.there } }
      return opened(e.there)
  }
}

/** older says that what arrived is no news: of things with a version, what is not later. */
const older = <T, B>(a: There<T, B>, b: There<T, B>) =>
  typeof a.base === 'number' && typeof b.base === 'number' && a.base <= b.base

function failed<T, B>(doc: Doc<T, B>, f: Failure<T, B>, merge: Merge<T, B>): Doc<T, B> {
  const sent = doc.attempt?.value
  switch (f.is) {
    case 'away':
      return {
        ...doc,
        is: 'away',
        why: f.why,
        unanswered: sent === undefined || doc.unanswered.includes(sent) ? doc.unanswered : [...doc.unanswered, sent],
      }
    case 'stale': // it is what was sent from here and whose answer was lost
      if (doc.unanswered.some((u) => sameAs(u, f.theirs.value))) return { ...over(doc, f.theirs, merge), is: 'dirty' }
      return { ...doc, is: 'stale', why: f.why, theirs: f.theirs }
    case 'refused': // what was typed meanwhile is another matter
      return sent !== doc.value
        ? { ...doc, is: 'dirty', attempt: null }
        : { ...doc, is: 'refused', why: f.why, faults: f.faults, attempt: null }
    case 'asked':
      return sent !== doc.value
        ? { ...doc, is: 'dirty', attempt: null }
        : { ...doc, is: 'asked', why: f.why, sure: false }
  }
}
