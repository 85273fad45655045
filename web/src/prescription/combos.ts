import { v7 as uuidv7 } from 'uuid'
import type { Combo, SlotDraft } from '../api/client'

interface Session {
  slots: SlotDraft[]
  combos?: Combo[]
}

/** joined says whether a slot is done in turns with the next one. */
export const joined = (slots: SlotDraft[], i: number) => !!slots[i]?.combo && slots[i + 1]?.combo === slots[i].combo

/** place says which of a combo's rests follows a slot's sets; null where its own do. */
function place(s: Session, i: number): 'between_s' | 'after_s' | null {
  if (joined(s.slots, i)) return 'between_s'
  return joined(s.slots, i - 1) ? 'after_s' : null
}

/** restOf is the rest after a slot's sets where its combo says it. */
export function restOf(s: Session, i: number): number | undefined {
  const which = place(s, i)
  const combo = s.combos?.find((c) => c.id === s.slots[i]?.combo)
  return which && combo ? combo[which] : undefined
}

/** withRest changes the rest that a slot's combo says. */
export function withRest<S extends Session>(s: S, i: number, seconds: number): S {
  const which = place(s, i)
  return which
    ? { ...s, combos: s.combos?.map((c) => (c.id === s.slots[i]!.combo ? { ...c, [which]: seconds } : c)) }
    : s
}

/**
 * join does a slot in turns with the next one, or takes their combo apart. Between the members there is no rest but for
 * what the caps ask for; apart, each has its own again.
 */
export function join<S extends Session>(s: S, id: string, least: number, plain: number): S {
  const i = s.slots.findIndex((x) => x.id === id)
  const here = s.slots[i]
  const next = s.slots[i + 1]
  if (!here || !next) return s
  if (joined(s.slots, i)) {
    return {
      ...s,
      combos: s.combos?.filter((c) => c.id !== here.combo),
      slots: s.slots.map((x) =>
        x.combo === here.combo
          ? { ...x, combo: undefined, rows: x.rows.map((r) => ({ ...r, rest_s: r.rest_s || plain })) }
          : x,
      ),
    }
  }
  const combo = here.combo ?? next.combo ?? uuidv7()
  const inIt = (x: SlotDraft, k: number) =>
    k === i || k === i + 1 || (!!here.combo && x.combo === here.combo) || (!!next.combo && x.combo === next.combo)
  const last = s.slots.filter(inIt).pop()!
  const kept = s.combos?.find((c) => c.id === (next.combo ?? here.combo))
  return {
    ...s,
    combos: [
      ...(s.combos ?? []).filter((c) => c.id !== here.combo && c.id !== next.combo),
      { id: combo, between_s: kept?.between_s ?? least, after_s: last.rows[0]?.rest_s || plain },
    ],
    slots: s.slots.map((x, k) => (inIt(x, k) ? { ...x, combo } : x)),
  }
}
