import { useState } from 'react'
import { Slice } from '../figures/Slice'
import { ahead, type Now, type Standing } from './machine'
import type { Ready } from './types'
import css from './floor.module.css'

interface Props {
  ready: Ready
  at: Standing
  now: Now
  want: (slot: string | null) => void
  leaveOut: (slot: string, sets: number, reason: 'time' | 'form' | 'enough' | 'taken' | 'not_today') => Promise<string>
}

/** Next is what to fetch meanwhile; behind it lies what else is still to do, to be done first or left out. */
export function Next({ ready, at, now, want, leaveOut }: Props) {
  const [open, setOpen] = useState(false)
  const [leaving, setLeaving] = useState(false)
  const steps = ahead(ready, at)
  const after = steps.find((s) => ready.slots[s.slot]!.id !== now.slot.id && steps.indexOf(s) > steps.indexOf(now.step))
  const next = after ? ready.slots[after.slot]! : null
  const still = ready.slots.filter((s, i) => s.id !== now.slot.id && steps.some((x) => x.slot === i))
  const here = steps.filter((s) => ready.slots[s.slot]!.id === now.slot.id).length
  return (
    <section className={css.next} aria-label="Next">
      <div className={css.nextLine}>
        <span className={css.label}>next</span>
        {next ? (
          <>
            <Slice geometry={ready.right} view={next.slice} size={40} />
            <span className={css.nextWords}>
              <b>{next.title}</b>
              {next.set_up_words[0] && `: ${next.set_up_words[0]}`}
              {next.special && <b> Last set: {next.special}</b>}
            </span>
          </>
        ) : (
          <span className={css.nextWords}>nothing more after this</span>
        )}
        <button type="button" className={css.plain} aria-expanded={open} onClick={() => setOpen(!open)}>
          Another way
        </button>
      </div>
      {open && (
        <div className={css.row}>
          {still.map((s) => (
            <button
              key={s.id}
              type="button"
              className={css.plain}
              onClick={() => {
                want(s.id)
                setOpen(false)
              }}
            >
              {s.short} first
            </button>
          ))}
          <button type="button" className={css.plain} aria-expanded={leaving} onClick={() => setLeaving(!leaving)}>
            Leave the rest of {now.slot.short} out …
          </button>
        </div>
      )}
      {open && leaving && (
        <div className={css.row} role="group" aria-label="Why">
          {ready.reasons
            .filter((r) => r.id !== 'pain') // that is told where it hurts
            .map((r) => (
              <button
                key={r.id}
                type="button"
                className={css.plain}
                onClick={() => {
                  setOpen(false)
                  setLeaving(false)
                  void leaveOut(now.slot.id, here, r.id as 'time')
                }}
              >
                {r.words}
              </button>
            ))}
        </div>
      )}
    </section>
  )
}
