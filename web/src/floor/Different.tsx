import { useState } from 'react'
import { clsx } from 'clsx'
import { kinds } from './kinds'
import { loadWords } from './Now'
import type { Now } from './machine'
import type { Part, ReadySlot } from './types'
import css from './floor.module.css'

/** Typed is what differed of a set. */
export interface Typed {
  reps: number
  load: number // among the loads
  kg: number | null // where the room's loads are not known
  reserve: number
  technical: boolean
  faults: string[]
  throughout: boolean
  extra: Part[] // beside its clean reps
  note: string
}

const likeliest = 5

interface Props {
  now: Now
  slot: ReadySlot
  start: Typed
  hidden: boolean
  verb: string
  done: (t: Typed) => void
  cancel: () => void
  more?: React.ReactNode
}

/** Different is what was not as planned of one set. */
export function Different({ now, slot, start, hidden, verb, done, cancel, more }: Props) {
  const [t, set] = useState(start)
  const [all, setAll] = useState(false)
  const [parts, setParts] = useState(start.extra.length > 0)
  const [taken, setTaken] = useState(false)
  const put = (part: Partial<Typed>) => set({ ...t, ...part })
  const extraOf = (k: Part['kind']) => t.extra.find((p) => p.kind === k)
  const countOf = (p: Part | undefined) => (p ? (p.kind === 'hold' ? (p.seconds ?? 0) : (p.reps ?? 0)) : 0)
  const setExtra = (k: Part['kind'], n: number) =>
    put({
      extra: [
        ...t.extra.filter((p) => p.kind !== k),
        ...(n > 0 ? [k === 'hold' ? { kind: k, seconds: n } : { kind: k, reps: n }] : []),
      ],
    })
  const mark = slot.marks.indexOf(t.load)
  const expected = now.row.taken[mark] ?? []
  const faults = all ? slot.faults : slot.faults.slice(0, likeliest)
  return (
    <section className={css.panel} aria-label="What was different">
      <h2>What was different</h2>
      <Stepper
        label="Reps, clean"
        value={String(t.reps)}
        down={() => put({ reps: Math.max(0, t.reps - 1) })}
        up={() => put({ reps: Math.min(100, t.reps + 1) })}
      />
      {now.loads.length > 0 ? (
        <Stepper
          label="Load"
          value={loadWords(now, t.load, hidden)}
          down={() => put({ load: Math.max(0, t.load - 1) })}
          up={() => put({ load: Math.min(now.loads.length - 1, t.load + 1) })}
        />
      ) : (
        <label className={css.note}>
          Load, kg
          <input
            inputMode="decimal"
            value={t.kg ?? ''}
            onChange={(e) => {
              const kg = Number(e.target.value.replace(',', '.'))
              put({ kg: e.target.value && Number.isFinite(kg) ? Math.min(500, Math.max(-200, kg)) : null })
            }}
          />
        </label>
      )}
      {!now.swapped && expected.length > 0 && (
        <p>
          <button type="button" className={css.plain} aria-expanded={taken} onClick={() => setTaken(!taken)}>
            That one is taken
          </button>
        </p>
      )}
      {taken && (
        <div className={css.row}>
          {expected.map((e) => (
            <button
              key={e.mark}
              type="button"
              className={css.plain}
              onClick={() => put({ load: slot.marks[e.mark]!, reps: e.high })}
            >
              {loadWords(now, slot.marks[e.mark]!, hidden)}: {e.low === e.high ? e.low : `${e.low}–${e.high}`}
            </button>
          ))}
        </div>
      )}
      <Stepper
        label="Left in reserve"
        value={t.reserve === 0 ? 'none' : String(t.reserve)}
        down={() => put({ reserve: Math.max(0, t.reserve - 1) })}
        up={() => put({ reserve: Math.min(10, t.reserve + 1) })}
      />
      <button
        type="button"
        className={clsx(css.plain, t.technical && css.on)}
        aria-pressed={t.technical}
        onClick={() => put({ technical: !t.technical })}
      >
        Form went before the muscle
      </button>
      <div className={css.row} role="group" aria-label="What was seen">
        {faults.map((f) => (
          <button
            key={f.id}
            type="button"
            className={clsx(css.plain, t.faults.includes(f.id) && css.on)}
            aria-pressed={t.faults.includes(f.id)}
            onClick={() =>
              put({ faults: t.faults.includes(f.id) ? t.faults.filter((x) => x !== f.id) : [...t.faults, f.id] })
            }
          >
            {f.seen}
          </button>
        ))}
        {!all && slot.faults.length > likeliest && (
          <button type="button" className={css.plain} onClick={() => setAll(true)}>
            Something else seen …
          </button>
        )}
        {t.faults.length > 0 && (
          <button
            type="button"
            className={clsx(css.plain, t.throughout && css.on)}
            aria-pressed={t.throughout}
            onClick={() => put({ throughout: !t.throughout })}
          >
            All along the set
          </button>
        )}
      </div>
      {parts ? (
        kinds.map(([k, words]) => (
          <Stepper
            key={k}
            label={words}
            value={String(countOf(extraOf(k)))}
            down={() => setExtra(k, Math.max(0, countOf(extraOf(k)) - 1))}
            up={() => setExtra(k, countOf(extraOf(k)) + (k === 'hold' ? 5 : 1))}
          />
        ))
      ) : (
        <button type="button" className={css.plain} onClick={() => setParts(true)}>
          Reps that were not clean …
        </button>
      )}
      <label className={css.note}>
        Note
        <input value={t.note} maxLength={300} onChange={(e) => put({ note: e.target.value })} />
      </label>
      {more}
      <div className={css.actions}>
        <button type="button" className={css.go} onClick={() => done(t)}>
          {verb}
        </button>
        <button type="button" className={css.other} onClick={cancel}>
          Back
        </button>
      </div>
    </section>
  )
}

function Stepper({ label, value, down, up }: { label: string; value: string; down: () => void; up: () => void }) {
  return (
    <div className={css.stepper} role="group" aria-label={label}>
      <span className={css.label}>{label}</span>
      <button type="button" aria-label={`${label}: one less`} onClick={down}>
        −
      </button>
      <b aria-live="polite">{value}</b>
      <button type="button" aria-label={`${label}: one more`} onClick={up}>
        +
      </button>
    </div>
  )
}
