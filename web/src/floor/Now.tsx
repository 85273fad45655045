import { clsx } from 'clsx'
import { Figure } from '../figures/Figure'
import type { Now as What } from './machine'
import type { Ready } from './types'
import css from './floor.module.css'

interface Props {
  ready: Ready
  now: What
  reps: number
  setReps: (n: number) => void
  load: number
  stage: number
  seconds: number | null // that are left of a hold
  ramp: number // steps of the way up that are ticked
  tickRamp: (n: number) => void
  children: React.ReactNode // what comes next
}

/** chipsOf are the reps that can be said with one tap: the band’s end and what lies under it, the aim among them. */
export function chipsOf(aim: number, high: number): number[] {
  const most = high + 1 - aim <= 5 ? Math.max(high + 1, aim) : aim + 3
  return Array.from({ length: 7 }, (_, i) => most - 6 + i).filter((n) => n >= 0)
}

/** loadWords tells a load, or how far it is from the planned one where numbers are kept from her. */
export function loadWords(now: What, load: number, hidden: boolean): string {
  if (now.loads.length === 0) return 'the load as it is marked here'
  if (load < 0) return 'find it: a weight you could lift 15 times'
  if (!hidden) return now.loads[load]?.words ?? ''
  const off = load - (now.swapped ? now.swapped.start : (now.row.loads[0] ?? load))
  if (off === 0) return now.row.loads.length ? 'the load as planned' : 'light: stop when 3 more would go'
  return `${Math.abs(off)} ${Math.abs(off) === 1 ? 'mark' : 'marks'} ${off > 0 ? 'heavier' : 'lighter'} than planned`
}

/** Now is what to do this minute: what, how many, with what, until where. */
export function Now({ ready, now, reps, setReps, load, stage, seconds, ramp, tickRamp, children }: Props) {
  const { slot, row, swapped } = now
  const here = now.stages[stage]!
  const rung = here.rung ? row.loads[here.rung] : undefined
  const set = swapped ?? slot
  const steps = ready.ramp?.slot === slot.id && now.first ? ready.ramp.steps : []
  const arm = now.side === 'both' ? '' : now.side === 'left' ? 'left arm' : 'right arm'
  return (
    <section className={css.now} aria-label="Now">
      <div className={css.dose}>
        <h2 className={css.title}>{row.title && !swapped ? row.title : set.title}</h2>
        <p className={css.which}>
          set {now.setNo} of {now.sets}
          {arm && <b> · {arm}</b>}
          {row.method && !swapped && <span> · {row.method}</span>}
          {now.inTurns && <span> · in turns with {now.inTurns}</span>}
        </p>
        {now.stages.length > 1 && (
          <p className={css.stage}>
            <b>{here.words || 'as planned'}</b>
            <span>
              {stage + 1} of {now.stages.length}
            </span>
          </p>
        )}
        <p className={css.big} aria-live="polite" aria-atomic="true">
          <span className="only-read">{arm} </span>
          {here.is === 'hold' ? (
            <>
              <b className={css.figure}>{seconds ?? here.seconds}</b> <span>s hold</span>
            </>
          ) : (
            <>
              <b className={css.figure}>{stage === 0 ? reps : here.reps}</b>{' '}
              <span>
                reps
                {stage === 0 && now.low !== now.high && here.is === 'clean' && (
                  <small>
                    {' '}
                    of {now.low}–{now.high}
                  </small>
                )}
              </span>
            </>
          )}
        </p>
        <p className={css.load}>
          <b>{loadWords(now, rung ?? load, ready.hidden)}</b>
          <span>
            {' '}
            · {now.reserve === 0 ? 'to the limit' : `stop with ${now.reserve} left`}
            {row.tempo && !row.tempo.startsWith('controlled') && ` · ${row.tempo}`}
          </span>
        </p>
        {stage === 0 && here.is === 'clean' && (
          <div className={css.chips} role="group" aria-label="Reps that were done">
            {chipsOf(now.aim, now.high).map((n) => (
              <button
                key={n}
                type="button"
                className={clsx(css.chip, n === reps && css.on)}
                aria-pressed={n === reps}
                onClick={() => setReps(n)}
              >
                {n}
              </button>
            ))}
          </div>
        )}
        {now.say && (
          <p className={css.say} role="status">
            {now.say}
          </p>
        )}
        {row.word && <p className={css.word}>{row.word}</p>}
        {now.first && slot.special && <p className={css.special}>Last set: {slot.special}</p>}
        {slot.last && <p className={css.last}>last time: {slot.last}</p>}
      </div>
      <div className={css.how}>
        {!swapped && <Figure pose={slot.pose} className={clsx(css.pose, !now.first && css.wide)} />}
        {(now.first || swapped) && (
          <div className={css.setUp}>
            {set.details && <p>{set.details}</p>}
            <ul>
              {set.set_up_words.map((w) => (
                <li key={w}>{w}</li>
              ))}
              {!swapped && slot.ends && <li>{slot.ends}</li>}
              {!swapped && slot.starts && <li>{slot.starts}</li>}
              {!swapped && slot.combo && <li>{slot.combo}</li>}
            </ul>
            {!swapped &&
              slot.keeps.map((w) => (
                <p key={w} className={css.keep}>
                  {w}
                </p>
              ))}
            {row.caution && <p className={css.keep}>{row.caution}</p>}
          </div>
        )}
        {steps.length > 0 && (
          <ol className={css.ramp} aria-label="The way up to the working load">
            {steps.map((w, i) => (
              <li key={w + String(i)}>
                <button
                  type="button"
                  className={clsx(css.tick, i < ramp && css.on)}
                  aria-pressed={i < ramp}
                  onClick={() => tickRamp(i < ramp ? i : i + 1)}
                >
                  {w}
                </button>
              </li>
            ))}
          </ol>
        )}
        {slot.cues.length > 0 && (
          <ul className={css.cues}>
            {slot.cues.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        )}
        {children}
      </div>
    </section>
  )
}
