import { useState } from 'react'
import { Different, type Typed } from './Different'
import { again, nearest, now as nowOf, type Standing } from './machine'
import type { Ready, Tell } from './types'
import css from './floor.module.css'

interface Props {
  ready: Ready
  at: Standing
  tell: Tell
  mayEase: boolean // what followed from pain
}

/** SetsDone is what was done so far, the latest first; each can be put right where it stands. */
export function SetsDone({ ready, at, tell, mayEase }: Props) {
  const [correcting, setCorrecting] = useState<string | null>(null)
  const slotOf = (id: string) => ready.slots.find((s) => s.id === id)
  const reasonOf = (id: string) => ready.reasons.find((r) => r.id === id)?.words ?? ''
  const rows = [...at.sets].reverse()
  const left = [...at.events].filter((e) => e.left_out || e.swap || e.paired).reverse()
  if (rows.length === 0 && left.length === 0) return null
  return (
    <section className={css.done} aria-label="Done so far">
      <ol>
        {rows.map((s) => {
          const slot = slotOf(s.slot)
          const load = slot?.loads[nearest(slot.loads, s.wholeKg)]
          const what =
            correcting === s.id &&
            slot &&
            nowOf(ready, { sets: at.sets.filter((x) => x.id !== s.id && x.at < s.at), events: at.events }, slot.id)
          if (correcting === s.id && slot && what)
            return (
              <li key={s.id}>
                <Different
                  now={{ ...what, setNo: s.setNo, side: s.side }}
                  slot={slot}
                  hidden={ready.hidden}
                  start={{
                    reps: s.reps,
                    load: Math.max(0, nearest(what.loads, s.wholeKg)),
                    kg: s.wholeKg,
                    reserve: s.reserve,
                    technical: s.technical,
                    faults: s.faults,
                    throughout: false,
                    extra: s.parts.filter((p) => p.kind !== 'clean'),
                    note: s.note,
                  }}
                  verb="Put it right"
                  done={(t: Typed) => {
                    const clean = s.parts.filter((p) => p.kind === 'clean' && p.load_kg !== undefined)
                    const parts =
                      t.extra.length || clean.length
                        ? [{ kind: 'clean' as const, reps: t.reps }, ...clean, ...t.extra]
                        : []
                    void tell({
                      kind: 'set',
                      set: {
                        ...again(s),
                        reps: t.reps,
                        whole_kg: what.loads[t.load]?.whole_kg ?? t.kg ?? s.wholeKg,
                        reserve: t.reserve,
                        technical: t.technical,
                        faults: t.faults,
                        note: t.note,
                        parts,
                        sure: true,
                      },
                    }).then(() => setCorrecting(null))
                  }}
                  cancel={() => setCorrecting(null)}
                  more={
                    <button
                      type="button"
                      className={css.plain}
                      onClick={() =>
                        void tell({ kind: 'set', set: { ...again(s), withdrawn: true } }).then(() =>
                          setCorrecting(null),
                        )
                      }
                    >
                      It was not done: take it out
                    </button>
                  }
                />
              </li>
            )
          return (
            <li key={s.id}>
              <span>
                {slot?.short ?? s.title} {s.setNo}
                {s.side !== 'both' && (s.side === 'left' ? ' left' : ' right')}: <b>{s.reps}</b>
                {!ready.hidden && load && ` · ${load.words}`}
                {s.parts.length > 1 && ` · ${s.parts.length} parts`}
                {s.technical && <b className="warn"> form went</b>}
                {s.by && <span className={css.small}> {s.by}</span>}
                {s.waiting && <span className={css.small}> waits to be sent</span>}
              </span>
              {s.ask && (
                <span className={css.offer}>
                  {s.ask}{' '}
                  <button
                    type="button"
                    className={css.plain}
                    onClick={() => void tell({ kind: 'set', set: { ...again(s), sure: true } })}
                  >
                    {s.twice ? 'Another one' : 'It was so'}
                  </button>
                  {s.twice && (
                    <button
                      type="button"
                      className={css.plain}
                      onClick={() => void tell({ kind: 'set', set: { ...again(s), withdrawn: true } })}
                    >
                      The same
                    </button>
                  )}
                </span>
              )}
              <button type="button" className={css.plain} onClick={() => setCorrecting(s.id)}>
                Correct
              </button>
            </li>
          )
        })}
        {left.map((e) => (
          <li key={e.id}>
            <span>
              {e.paired && `${slotOf(e.paired.slot)?.short ?? ''}: in turns with the next one`}
              {e.left_out &&
                `${slotOf(e.left_out.slot)?.short ?? ''}: ${e.left_out.sets} left out, ${reasonOf(e.left_out.reason)}`}
              {e.swap && `${slotOf(e.swap.slot)?.short ?? ''}: goes on otherwise after pain`}
            </span>
            {(mayEase || e.paired || (e.left_out && e.left_out.reason !== 'pain')) && (
              <button type="button" className={css.plain} onClick={() => void tell({ kind: 'undone', undone: e.id })}>
                Take it back
              </button>
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
