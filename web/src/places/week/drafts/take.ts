import type { DraftedWeek, WeekDraft } from '../../../api/client'

/** takeAll is the board with a whole drafted week laid on it. */
export function takeAll(board: WeekDraft[], week: DraftedWeek): WeekDraft[] {
  const next = new Map(week.sessions.map((s) => [s.id, s]))
  return [
    ...board.filter((d) => !week.removed.includes(d.id)).map((d) => next.get(d.id) ?? d),
    ...week.sessions.filter((s) => !board.some((d) => d.id === s.id)),
  ]
}

/** takeSlot is the board with one slot of a drafted week beside what is there, on its day. */
export function takeSlot(board: WeekDraft[], week: DraftedWeek, session: string, slot: string): WeekDraft[] {
  const from = week.sessions.find((s) => s.id === session)
  const taken = from?.slots.find((s) => s.id === slot)
  if (!from || !taken) return board
  const alone = { ...taken, combo: undefined } // whom it is in turns with stays where it is
  const there = board.find((d) => d.id === session) ?? board.find((d) => d.planned_on === from.planned_on && !d.locked)
  if (!there) return [...board, { ...from, combos: [], slots: [alone] }]
  if (there.slots.some((s) => s.id === slot))
    return board.map((d) => (d === there ? { ...d, slots: d.slots.map((s) => (s.id === slot ? alone : s)) } : d))
  return board.map((d) => (d === there ? { ...d, slots: [...d.slots, alone] } : d))
}
