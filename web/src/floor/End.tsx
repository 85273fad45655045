import { useState } from 'react'
import { clsx } from 'clsx'
import type { Standing } from './machine'
import type { Done, Ready, Tell } from './types'
import css from './floor.module.css'

interface Props {
  ready: Ready
  done: Done
  at: Standing
  tell: Tell
  leave: () => void
}

const good = ['a bad day', 'so-so', 'all right', 'good', 'one of the best']

/** End is when nothing is left to do: how it was, where it was felt, and what differed from the plan. */
export function End({ ready, done, at, tell, leave }: Props) {
  const said = at.events.filter((e) => e.end).at(-1)?.end
  const [hard, setHard] = useState<number | null>(said?.hard ?? null)
  const [well, setWell] = useState(said?.good ?? 0)
  const [felt, setFelt] = useState<string[]>(said?.felt ?? [])
  const [note, setNote] = useState(said?.note ?? '')
  const [kept, setKept] = useState(said !== undefined)
  const left = at.events.filter((e) => e.left_out)
  const sets = at.sets.filter((s) => !s.twice).length
  const reasonOf = (id: string) => ready.reasons.find((r) => r.id === id)?.words ?? id
  return (
    <section className={css.end} aria-label="The end">
      <h2>Done: {sets === 1 ? '1 set' : `${sets} sets`}</h2>
      {left.map((e) => (
        <p key={e.id}>
          {ready.slots.find((s) => s.id === e.left_out!.slot)?.short}: {e.left_out!.sets} not done,{' '}
          {reasonOf(e.left_out!.reason)}.
        </p>
      ))}
      {done.next.map((w) => (
        <p key={w} className={css.last}>
          {w}
        </p>
      ))}
      <p className={css.label}>How hard was it?</p>
      <div className={css.scores} role="group" aria-label="How hard, 0 to 10">
        {Array.from({ length: 11 }, (_, n) => (
          <button
            key={n}
            type="button"
            className={clsx(css.plain, hard === n && css.on)}
            aria-pressed={hard === n}
            onClick={() => setHard(n)}
          >
            {n}
          </button>
        ))}
      </div>
      <p className={css.label}>And how good?</p>
      <div className={css.row} role="group" aria-label="How good, 1 to 5">
        {good.map((w, i) => (
          <button
            key={w}
            type="button"
            className={clsx(css.plain, well === i + 1 && css.on)}
            aria-pressed={well === i + 1}
            onClick={() => setWell(i + 1)}
          >
            {w}
          </button>
        ))}
      </div>
      <p className={css.label}>Where was it felt? A hint, never proof.</p>
      <div className={css.row} role="group" aria-label="Where it was felt">
        {ready.heads.map((h) => (
          <button
            key={h.id}
            type="button"
            className={clsx(css.plain, felt.includes(h.id) && css.on)}
            aria-pressed={felt.includes(h.id)}
            onClick={() => setFelt(felt.includes(h.id) ? felt.filter((x) => x !== h.id) : [...felt, h.id])}
          >
            {h.words}
          </button>
        ))}
      </div>
      <label className={css.note}>
        Note
        <input value={note} maxLength={300} onChange={(e) => setNote(e.target.value)} />
      </label>
      {done.referral && (
        <details className={css.referral}>
          <summary>For whoever examines what hurt</summary>
          <p>{done.referral}</p>
          <button type="button" className={css.plain} onClick={() => window.print()}>
            Print
          </button>{' '}
          <a
            className={css.plain}
            href={`mailto:?subject=${encodeURIComponent('What hurt in training')}&body=${encodeURIComponent(done.referral)}`}
          >
            Send
          </a>
        </details>
      )}
      <div className={css.actions}>
        <button
          type="button"
          className={css.go}
          onClick={() => {
            if (hard === null && !well && !felt.length && !note) return leave()
            void tell({ kind: 'end', end: { hard: hard ?? 0, ...(well ? { good: well } : {}), felt, note } }).then(
              (id) => {
                if (id) setKept(true)
              },
            )
          }}
        >
          {kept ? 'Say it again' : hard === null && !well && !felt.length && !note ? 'Leave the floor' : 'Keep it'}
        </button>
        <button type="button" className={css.other} onClick={leave}>
          {kept ? 'Kept. Leave the floor' : 'Leave without'}
        </button>
      </div>
    </section>
  )
}
