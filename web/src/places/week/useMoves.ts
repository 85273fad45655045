import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { WeekView } from '../../api/client'
import { laterBy } from '../../ui/days'
import { message } from '../../ui/tell'
import type { Held } from './BoardSession'
import { moveDay, moveSlot, type Place } from './move'
import type { Drafts as Sessions } from './useWeek'

/** useMoves carries sessions and slots over the board, by pointer and by keys; what is locked stays. */
export function useMoves(
  drafts: Sessions,
  view: WeekView,
  mayPlan: boolean,
  w: { edit: (next: Sessions) => void; look: (next: Sessions) => void },
) {
  const [held, setHeld] = useState<Held | null>(null)
  const [over, setOver] = useState<Sessions | null>(null)
  const target = useRef('')

  /** drop says what the week becomes with what is held put where the pointer is. */
  const drop = (x: number, y: number): Sessions | null => {
    if (!held) return null
    const at = document.elementFromPoint(x, y)
    const column = at?.closest<HTMLElement>('[data-day]')
    if (held.kind === 'session') return column ? moveDay(drafts, held.id, column.dataset.day!) : null
    const card = at?.closest<HTMLElement>('[data-session]') ?? column?.querySelector<HTMLElement>('[data-session]')
    if (!card) return null
    const rows = [...card.querySelectorAll<HTMLElement>('[data-slot]')].filter((r) => r.dataset.slot !== held.id)
    const before = rows.findIndex((r) => y < r.getBoundingClientRect().top + r.offsetHeight / 2)
    const ids = (drafts.find((d) => d.id === card.dataset.session)?.slots ?? []).map((s) => s.id)
    const place: Place = {
      session: card.dataset.session!,
      at: before < 0 ? ids.length : ids.indexOf(rows[before]!.dataset.slot!),
    }
    return locked(place.session) ? null : moveSlot(drafts, held.id, place)
  }
  /** locked says whether a session or slot is held against slips of the hand; a slot is held by its session too */
  const locked = (id: string) =>
    drafts.some((d) => (d.id === id && d.locked) || d.slots.some((s) => s.id === id && (s.locked || d.locked)))
  const grab = (e: PointerEvent<HTMLElement>, h: Held) => {
    if (!mayPlan || e.button !== 0) return
    if (locked(h.id)) {
      message.open({ key: 'locked', content: 'It is locked: unlock it to move it.', duration: 3 })
      return
    }
    e.currentTarget.setPointerCapture(e.pointerId)
    target.current = JSON.stringify(drafts)
    setHeld(h)
  }
  const drag = (e: PointerEvent) => {
    if (!held) return
    const next = drop(e.clientX, e.clientY)
    const key = JSON.stringify(next ?? drafts)
    if (key === target.current) return
    target.current = key
    setOver(next)
    w.look(next ?? drafts)
  }
  const release = () => {
    if (!held) return
    setHeld(null)
    setOver(null)
    if (over) w.edit(over)
  }
  const cancel = () => {
    setHeld(null)
    setOver(null)
    w.look(drafts)
  }
  const slotKey = (e: KeyboardEvent, slot: string) => {
    if (!mayPlan) return
    if (e.key === 'l' && !e.ctrlKey && !e.metaKey) {
      e.preventDefault()
      w.edit(
        drafts.map((d) => ({ ...d, slots: d.slots.map((s) => (s.id === slot ? { ...s, locked: !s.locked } : s)) })),
      )
      return
    }
    if (!e.altKey || !e.key.startsWith('Arrow') || locked(slot)) return
    e.preventDefault()
    const order = [...drafts].sort((a, b) => a.planned_on.localeCompare(b.planned_on))
    const at = order.findIndex((d) => d.slots.some((s) => s.id === slot))
    const here = order[at]!.slots.findIndex((s) => s.id === slot)
    const to: Place | null =
      e.key === 'ArrowUp'
        ? { session: order[at]!.id, at: here - 1 }
        : e.key === 'ArrowDown'
          ? { session: order[at]!.id, at: here + 2 }
          : e.key === 'ArrowLeft'
            ? order[at - 1]
              ? { session: order[at - 1]!.id, at: 99 }
              : null
            : order[at + 1]
              ? { session: order[at + 1]!.id, at: 99 }
              : null
    if (to && to.at >= 0) w.edit(moveSlot(drafts, slot, to))
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-slot="${slot}"] button`)?.focus())
  }
  const sessionKey = (e: KeyboardEvent, id: string, date: string) => {
    if (!mayPlan || !e.altKey || (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') || locked(id)) return
    e.preventDefault()
    const to = laterBy(date, e.key === 'ArrowLeft' ? -1 : 1)
    if (view.days.some((d) => d.date === to)) w.edit(moveDay(drafts, id, to))
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-session="${id}"] [data-name]`)?.focus())
  }

  return { held, shown: over ?? drafts, grab, drag, release, cancel, slotKey, sessionKey }
}
