import { useState } from 'react'
import { clsx } from 'clsx'
import { clockWords } from './RestBand'
import { hurtAgain, outFor, tryFor, type Standing } from './machine'
import type { Ready, ReadySlot, Try, Tell } from './types'
import css from './floor.module.css'

interface Props {
  ready: Ready
  at: Standing
  slot: ReadySlot
  setsLeft: number // of the slot
  resting: boolean
  clock: number // ms
  tell: Tell
  close: () => void
}

type Place = { joint: string; side: '' | 'left' | 'right' }
type State =
  | { is: 'where' }
  | { is: 'flags' }
  | { is: 'flag'; id: string }
  | { is: 'wait'; since: number }
  | { is: 'mild' }
  | { is: 'out'; words: string }

/** Pain is a report of what hurts, and what may be done then: warning signs before anything is offered. */
export function Pain({ ready, at, slot, setsLeft, resting, clock, tell, close }: Props) {
  const [place, setPlace] = useState<Place | null>(null)
  const [sudden, setSudden] = useState(false)
  const [score, setScore] = useState<number | null>(null)
  const [state, setState] = useState<State>({ is: 'where' })
  const { over, rising, settle_s: settleS, reserve } = ready.pain
  const leaveOut = (s: ReadySlot, sets: number) =>
    tell({ kind: 'left_out', left_out: { slot: s.id, sets: Math.max(1, sets), reason: 'pain' } })

  const report = async (n: number, flags: string[]) => {
    const p = place!
    await tell({
      kind: 'pain',
      pain: {
        slot: slot.id,
        ...(p.joint ? { joint: p.joint, side: p.side } : {}),
        score: n,
        when: resting ? 'after' : 'middle',
        ...(sudden ? { sudden } : {}),
        ...(flags.length ? { flags } : {}),
      },
    })
    if (flags.length) return setState({ is: 'flag', id: flags[0]! })
    const first = at.events.find((e) => e.pain && (e.pain.joint ?? '') === p.joint && (e.pain.side ?? '') === p.side)
    const ends = n > over || sudden || (first?.pain !== undefined && n >= first.pain.score + rising)
    if (!p.joint) {
      if (setsLeft) await leaveOut(slot, setsLeft)
      return setState({
        is: 'out',
        words: 'It is not one of these joints: this exercise ends here. A coach looks at it before it is done again.',
      })
    }
    if (!ends) return setState({ is: 'mild' })
    const again = at.events.some((e) => e.swap?.joint === p.joint) || hurtAgain(ready, at).includes(p.joint)
    if (!again) return setState({ is: 'wait', since: clock })
    const gone = outFor(ready, at, p.joint)
    for (const g of gone) await leaveOut(g.slot, g.sets)
    setState({
      is: 'out',
      words: [
        `Over ${over} again: nothing more for this joint today.`,
        ...(gone.length ? [`Out: ${gone.map((g) => g.slot.short).join(', ')}.`] : []),
        `What loads it a little stays with ${reserve} left, and may be left out.`,
      ].join(' '),
    })
  }
  const scored = (n: number) => {
    setScore(n)
    if (n > over || sudden || !place!.joint) setState({ is: 'flags' })
    else void report(n, [])
  }
  const joint = place ? (ready.joints.find((j) => j.id === place.joint)?.words ?? 'elsewhere') : ''
  const take = async (t: Try, now: number) => {
    await tell({
      kind: 'swap',
      swap: {
        slot: slot.id,
        kind: t.kind as 'lighter',
        joint: place!.joint,
        movement: t.set_up.movement,
        settings: t.set_up.settings ?? {},
        reserve: t.reserve,
        now,
      },
    })
    close()
  }

  return (
    <section className={css.panel} aria-label="It hurts">
      <h2>
        {state.is === 'where'
          ? 'Where, and how much?'
          : place
            ? `${place.side} ${joint}${score === null ? '' : `, ${score} of 10`}`
            : ''}
      </h2>
      {state.is === 'where' && (
        <>
          <div className={css.body} role="group" aria-label="Where">
            {(['left', 'right'] as const).map((side) => (
              <div key={side} className={css.side}>
                <span className={css.label}>{side}</span>
                {ready.joints.map((j) => (
                  <button
                    key={j.id}
                    type="button"
                    className={clsx(css.plain, place?.joint === j.id && place.side === side && css.on)}
                    aria-pressed={place?.joint === j.id && place.side === side}
                    aria-label={`${side} ${j.words}`}
                    onClick={() => setPlace({ joint: j.id, side })}
                  >
                    {j.words}
                  </button>
                ))}
              </div>
            ))}
          </div>
          <div className={css.row}>
            <button
              type="button"
              className={clsx(css.plain, place?.joint === '' && css.on)}
              aria-pressed={place?.joint === ''}
              onClick={() => setPlace({ joint: '', side: '' })}
            >
              elsewhere
            </button>
            <button
              type="button"
              className={clsx(css.plain, sudden && css.on)}
              aria-pressed={sudden}
              onClick={() => setSudden(!sudden)}
            >
              it came suddenly
            </button>
          </div>
          <div className={css.scores} role="group" aria-label="How much, 0 to 10">
            {Array.from({ length: 11 }, (_, n) => (
              <button key={n} type="button" className={css.plain} disabled={!place} onClick={() => scored(n)}>
                {n}
              </button>
            ))}
          </div>
          <p className={css.small}>0 nothing · {over} bearable, fades · 10 the worst there is</p>
        </>
      )}
      {state.is === 'flags' && (
        <>
          <p className={css.ask}>Is any of this so?</p>
          <div className={css.flags}>
            {ready.flags.map((f) => (
              <button key={f.id} type="button" className={css.plain} onClick={() => void report(score!, [f.id])}>
                {f.text}
              </button>
            ))}
          </div>
          <button type="button" className={css.go} onClick={() => void report(score!, [])}>
            None of these
          </button>
        </>
      )}
      {state.is === 'flag' && <FlagText ready={ready} id={state.id} />}
      {state.is === 'mild' && <p>Noted. Go on as planned; if it rises, or goes over {over}, the set ends.</p>}
      {state.is === 'out' && <p role="status">{state.words}</p>}
      {state.is === 'wait' && (
        <Wait
          ready={ready}
          slot={slot}
          joint={place!.joint}
          leftS={settleS - (clock - state.since) / 1000}
          take={take}
          leave={async () => {
            if (setsLeft) await leaveOut(slot, setsLeft)
            close()
          }}
        />
      )}
      {state.is !== 'wait' && (
        <div className={css.actions}>
          <button type="button" className={css.other} onClick={close}>
            {state.is === 'where' || state.is === 'flags' ? 'Back' : 'Close'}
          </button>
        </div>
      )}
      <p className={css.small}>This is no diagnosis; local rules and licensed practice come first.</p>
    </section>
  )
}

const same = (a: Try, b: Try) => a.kind === b.kind && JSON.stringify(a.set_up) === JSON.stringify(b.set_up)

function FlagText({ ready, id }: { ready: Ready; id: string }) {
  const f = ready.flags.find((x) => x.id === id)
  return (
    <div className={css.alarm} role="alert">
      <p>
        <b>{f?.heading}</b>
      </p>
      <p>{f?.says}</p>
      <p>The session ends here. The coach is told.</p>
    </div>
  )
}

interface WaitProps {
  ready: Ready
  slot: ReadySlot
  joint: string
  leftS: number // in which it may settle
  take: (t: Try, now: number) => Promise<void>
  leave: () => Promise<void>
}

function Wait({ ready, slot, joint, leftS, take, leave }: WaitProps) {
  const { over, low, reserve } = ready.pain
  const two = tryFor(ready, slot, joint, low)
  const three = tryFor(ready, slot, joint, over)
  const late = leftS <= 0
  return (
    <>
      <p>
        <b>The set ends.</b>{' '}
        {late
          ? 'It did not settle in time: nothing more is tried here today.'
          : `Once it is back at ${over} or less within ${clockWords(Math.ceil(leftS))} there is one try, with at least ${reserve} left:`}
      </p>
      {!late && three && (!two || same(two, three)) && (
        <button type="button" className={css.go} onClick={() => void take(three, over)}>
          At {over} or less: {three.words}
        </button>
      )}
      {!late && two && !(three && same(two, three)) && (
        <>
          <button type="button" className={css.go} onClick={() => void take(two, low)}>
            At {low} or less: {two.words}
          </button>
          {three && (
            <button type="button" className={css.other} onClick={() => void take(three, over)}>
              At {over}: {three.words}
            </button>
          )}
        </>
      )}
      {!late && !two && !three && <p>Nothing here is kind enough to try.</p>}
      <button type="button" className={css.other} onClick={() => void leave()}>
        {late ? 'Leave this exercise' : `Not back at ${over}: leave this exercise`}
      </button>
    </>
  )
}
