import { v7 as uuidv7 } from 'uuid'
import type { Combo, Load, Row, SlotDraft, SlotView } from '../api/client'

/** Session is what of a session is prescribed. */
export interface Session {
  slots: SlotDraft[]
  combos?: Combo[]
}

/** rowsOf are a slot's rows; a new slot has those the server gives it. */
export const rowsOf = (slot: SlotDraft, view?: SlotView): Row[] =>
  slot.rows.length > 0 ? slot.rows : (view?.rows ?? [])

/** withRow changes one row of a slot. */
export function withRow(slot: SlotDraft, view: SlotView | undefined, row: number, part: Partial<Row>): SlotDraft {
  return { ...slot, rows: rowsOf(slot, view).map((r, k) => (k === row ? { ...r, ...part } : r)) }
}

/** restOf is the rest after a row's sets: that of its combo where the server says so, else its own. */
export function restOf(s: Session, view: SlotView | undefined, row: Row): number {
  const at = view?.rest_in
  return (at && s.combos?.find((c) => c.id === at.combo)?.[at.field]) ?? row.rest_s
}

/** withRest changes that rest where it stands. */
export function withRest<S extends Session>(
  s: S,
  slot: string,
  view: SlotView | undefined,
  row: number,
  seconds: number,
): S {
  const at = view?.rest_in
  if (at) return { ...s, combos: s.combos?.map((c) => (c.id === at.combo ? { ...c, [at.field]: seconds } : c)) }
  return { ...s, slots: s.slots.map((x) => (x.id === slot ? withRow(x, view, row, { rest_s: seconds }) : x)) }
}

/** found asks for a load that is yet to be found. */
const found = JSON.stringify({ find: true })

/** loadsOf lists what a row may ask for, as values of a list that is chosen from; '' is as the row above. */
export function loadsOf(view: SlotView | undefined, at: number): { value: string; label: string }[] {
  const offers = [...(at > 0 ? (view?.later ?? []) : []), ...(view?.steps ?? [])]
  return [
    ...(at > 0 ? [{ value: '', label: 'as the row above' }] : []),
    { value: found, label: 'find it' },
    ...offers.map((s) => ({ value: JSON.stringify(s.load), label: s.words })),
  ]
}

/** loadValue is what a row asks for as a value of that list, loadOf what was chosen of it. */
export const loadValue = (row: Row, at: number) => (row.load ? JSON.stringify(row.load) : at === 0 ? found : '')
export const loadOf = (value: string) => (value ? (JSON.parse(value) as Load) : undefined)

/** copied makes the rows of a copy: ids of their own. */
export const copied = (rows: Row[]): Row[] => rows.map((r) => ({ ...r, id: uuidv7() }))

/** faultOf is what is wrong with a field of a row, of any row of its slot without one. */
export function faultOf(faults: { field: string; reason: string }[], field: string, row?: number): string | undefined {
  const at = row === undefined ? '\\d+' : String(row)
  return faults.find((f) => new RegExp(`^rows\\[${at}\\]\\.${field}\\b`).test(f.field))?.reason
}
