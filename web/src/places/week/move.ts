import { laterBy } from '../../ui/days'
import { v7 as uuidv7 } from 'uuid'
import { copied } from '../../prescription/session'
import type { Drafts } from './useWeek'

export interface Place {
  session: string
  /** where among the session's slots, as they stand */
  at: number
}

/** moveSlot puts a slot at a place, in its own session or another one; in another one it leaves its combo. */
export function moveSlot(drafts: Drafts, slot: string, to: Place): Drafts {
  const from = drafts.find((d) => d.slots.some((s) => s.id === slot))
  if (!from || !drafts.some((d) => d.id === to.session)) return drafts
  const was = from.slots.findIndex((s) => s.id === slot)
  const own = from.id === to.session
  const slotThere = from.slots[was]!
  const moved = own ? slotThere : { ...slotThere, combo: undefined }
  const at = own && to.at > was ? to.at - 1 : to.at
  return drafts.map((d) => {
    const slots = d.slots.filter((s) => s.id !== slot)
    if (d.id === to.session) slots.splice(Math.max(0, Math.min(at, slots.length)), 0, moved)
    return d.id === from.id || d.id === to.session ? { ...d, slots } : d
  })
}

/** moveDay puts a session on another day. */
export function moveDay(drafts: Drafts, session: string, date: string): Drafts {
  return drafts.map((d) => (d.id === session ? { ...d, planned_on: date } : d))
}

/** copies makes new sessions of old ones, some days later; slots and combos get ids of their own. */
export function copies(drafts: Drafts, days: number): Drafts {
  return drafts.map((d) => {
    const combos = new Map<string, string>()
    return {
      ...d,
      id: uuidv7(),
      version: 0,
      planned_on: laterBy(d.planned_on, days),
      slots: d.slots.map((s) => {
        if (s.combo && !combos.has(s.combo)) combos.set(s.combo, uuidv7())
        return { ...s, id: uuidv7(), rows: copied(s.rows), combo: s.combo ? combos.get(s.combo) : undefined }
      }),
      combos: d.combos?.flatMap((c) => (combos.has(c.id) ? [{ ...c, id: combos.get(c.id)! }] : [])),
    }
  })
}
