import { v7 as uuidv7 } from 'uuid'
import type { Load, Row, SlotDraft } from '../api/client'

/** Hand is how a row holds the same weight, as the row says it: nothing where it is as the slot says. */
export type Hand = Pick<Row, 'movement' | 'settings'>

/**
 * Dose is a slot's rows where they differ in nothing but what is left in reserve and how the hand holds: one dose for
 * all sets, with what differs set by set in lists. A slot whose rows differ in more has none.
 */
export interface Dose extends Omit<Row, 'id' | 'movement' | 'settings' | 'load'> {
  load: Load
  /** what is left set by set, where it differs */
  reserves?: number[]
  /** how the hand holds set by set, where it differs */
  hands?: Hand[]
}

export const toFind: Load = { find: true }

const handOf = (r: Row): Hand => ({
  ...(r.movement ? { movement: r.movement } : {}),
  ...(r.settings && Object.keys(r.settings).length > 0 ? { settings: r.settings } : {}),
})

/** keyOf tells one way to hold from another. */
export const keyOf = (h: Hand) =>
  (h.movement ?? '') + JSON.stringify(Object.entries(h.settings ?? {}).sort(([a], [b]) => a.localeCompare(b)))

/** sameLoad says whether two loads ask for the same. */
export const sameLoad = (a: Load | undefined, b: Load | undefined) =>
  JSON.stringify(a && Object.entries(a).sort()) === JSON.stringify(b && Object.entries(b).sort())

const rest = (r: Row) =>
  JSON.stringify([r.reps_low, r.reps_high, r.seconds_low, r.seconds_high, r.rest_s, r.tempo, r.method, r.word])

/** doseOf reads a slot's rows as one dose; undefined without rows and where they differ in more than effort and hand. */
export function doseOf(rows: Row[]): Dose | undefined {
  const first = rows[0]
  if (!first || rows.slice(1).some((r) => r.load || rest(r) !== rest(first))) return undefined
  const sets = (f: (r: Row) => void) =>
    rows.forEach((r) => Array.from({ length: Math.max(0, Math.min(r.sets, 100)) }).forEach(() => f(r)))
  const { reps_low, reps_high, seconds_low, seconds_high, reserve, rest_s, tempo, method, word } = first
  const out: Dose = {
    sets: rows.reduce((n, r) => n + r.sets, 0),
    reps_low,
    reps_high,
    seconds_low,
    seconds_high,
    reserve,
    rest_s,
    tempo,
    method,
    word,
    load: first.load ?? toFind,
  }
  if (rows.some((r) => r.reserve !== first.reserve)) sets((r) => (out.reserves ??= []).push(r.reserve))
  if (rows.some((r) => keyOf(handOf(r)) !== keyOf({}))) sets((r) => (out.hands ??= []).push(handOf(r)))
  return out
}

const at = <T>(list: T[] | undefined, n: number): T | undefined => list && list[Math.min(n, list.length - 1)]

/** rowsOf writes a dose as rows, one for each run of sets alike; rows keep the ids of those that were there. */
export function rowsOf(dose: Dose, was: Row[]): Row[] {
  const { reserves, hands, load, sets, ...rest } = dose
  const out: Row[] = []
  const add = (n: number, reserve: number, hand: Hand) =>
    out.push({
      ...rest,
      id: was[out.length]?.id ?? uuidv7(),
      sets: n,
      reserve,
      ...hand,
      ...(out.length === 0 ? { load } : {}),
    })
  if (!reserves?.length && !hands?.length) {
    add(sets, dose.reserve, {})
    return out
  }
  for (let n = 0; n < Math.max(1, Math.min(sets, 100)); n++) {
    const reserve = at(reserves, n) ?? dose.reserve
    const hand = at(hands, n) ?? {}
    const last = out[out.length - 1]
    if (last && last.reserve === reserve && keyOf(handOf(last)) === keyOf(hand)) last.sets++
    else add(1, reserve, hand)
  }
  return out
}

/** withDose gives a slot another dose. */
export const withDose = (s: SlotDraft, dose: Dose): SlotDraft => ({ ...s, rows: rowsOf(dose, s.rows) })

/** copied makes the rows of a copy: ids of their own. */
export const copied = (rows: Row[]): Row[] => rows.map((r) => ({ ...r, id: uuidv7() }))

/** alike makes all sets like those of the first row. */
export const alike = (rows: Row[]): Row[] =>
  rows
    .slice(0, 1)
    .map((r) => ({ ...r, sets: rows.reduce((n, x) => n + x.sets, 0), movement: undefined, settings: undefined }))
