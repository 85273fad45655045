import type { Move, ReadySlot, SetHere, State } from './types'

// What is advised comes from the slot's table, which the core made: here it is only looked up.

/** mostOver is how far from the band an outcome is told, as the core counts outcomes; a test holds it against the core’s. */
export const mostOver = 6
const outcomes = 2 * (2 * mostOver + 1)

/** outcome is the place in the table of how a set came out: the arm that did less decides. */
export function outcome(sets: SetHere[], row: { low: number; high: number; reserve: number }) {
  const effective = Math.max(
    0,
    Math.min(...sets.map((s) => s.reps)) + Math.min(...sets.map((s) => s.reserve)) - row.reserve,
  )
  const over = effective > row.high ? effective - row.high : effective < row.low ? effective - row.low : 0
  const held = !sets.some((s) => s.technical)
  return Math.min(mostOver, Math.max(-mostOver, over)) + mostOver + (held ? 0 : 2 * mostOver + 1)
}

/** next looks a move up; null where the table has no such state. */
export function next(slot: ReadySlot, s: State, out: number): Move | null {
  const t = slot.table
  const at =
    t?.states.findIndex(
      (o) => o.row === s.row && o.set === s.set && o.mark === s.mark && o.strikes === s.strikes && o.first === s.first,
    ) ?? -1
  return t && at >= 0 ? (t.moves[t.of[at * outcomes + out]!] ?? null) : null
}

/** markOf is the mark of a slot's table that is nearest to a load. */
export function markOf(slot: ReadySlot, wholeKg: number): number {
  let best = 0
  slot.marks.forEach((load, m) => {
    const off = (k: number) => Math.abs(slot.loads[slot.marks[k]!]!.whole_kg - wholeKg)
    if (load >= 0 && off(m) < off(best)) best = m
  })
  return best
}

/** Advised is where a slot stands after the sets that are done. */
export interface Advised {
  state: State | null // null: nothing is advised here
  move: Move | null // the last one
  ended: boolean // the advice ends it
}

/** advised follows a slot's sets through its table. */
export function advised(slot: ReadySlot, sets: SetHere[]): Advised {
  let state = slot.table?.states[0] ?? null
  let move: Move | null = null
  let set = 0
  for (const [k, row] of slot.rows.entries()) {
    for (let n = 0; n < row.sets; n++, set++) {
      const done = sets.filter((s) => s.setNo === set + 1)
      if (!state || done.length < slot.sides.length) return { state, move, ended: false }
      const at: State = { ...state, row: k, set: n, mark: markOf(slot, done[0]!.wholeKg) }
      const found: Move | null =
        next(slot, at, outcome(done, row)) ?? next(slot, { ...at, mark: state.mark }, outcome(done, row))
      if (!found) return { state: null, move: null, ended: false }
      move = found
      state = move.next
      if (move.end) return { state, move, ended: true }
    }
  }
  return { state, move, ended: set > 0 }
}
