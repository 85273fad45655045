import { useState } from 'react'
import { clsx } from 'clsx'
import { hurtAgain, outFor, tryFor, type Standing } from './machine'
import type { Event, Ready, ReadySlot, Try } from './types'
import css from './floor.module.css'

const over = 3 // a score over it ends the set
const rising = 2 // and so does this much above the first

interface Props {
  ready: Ready
  at: Standing
  slot: ReadySlot
  setsLeft: number // of the slot
  resting: boolean
  tell: (content: Omit<Event, 'id' | 'no' | 'at' | 'offset_ms' | 'version'>) => Promise<string>
  close: () => void
}

type Place = { joint: string; side: '' | 'left' | 'right' }
type State =
  | { is: 'where' }
  | { is: 'flags' }
  | { is: 'flag'; id: string }
  | { is: 'wait' }
  | { is: 'mild' }
  | { is: 'out'; words: string }

/** Pain is a report of what hurts, and what may be done then: warning signs before anything is offered. */
export function Pain({ ready, at, slot, setsLeft, resting, tell, close }: Props) {
  const [place, setPlace] = useState<Place | null>(null)
  const [sudden, setSudden] = useState(false)
  const [score, setScore] = useState<number | null>(null)
  const [state, setState] = useState<State>({ is: 'where' })
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
    const again = at.events.some((e) => e.swap?.joint === p.joint) || hurtAgain(at).includes(p.joint)
    if (!again) return setState({ is: 'wait' })
    const gone = outFor(ready, at, p.joint)
    for (const g of gone) await leaveOut(g.slot, g.sets)
    setState({
      is: 'out',
      words: `Over ${over} again: nothing more for this joint today. ${gone.length ? `Out: ${gone.map((g) => g.slot.short).join(', ')}. ` : ''}What loads it a little stays with 3 left, and may be left out.`,
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
          <p className={css.small}>0 nothing · 3 bearable, fades · 10 the worst there is</p>
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

function Wait({
  ready,
  slot,
  joint,
  take,
  leave,
}: {
  ready: Ready
  slot: ReadySlot
  joint: string
  take: (t: Try, now: number) => Promise<void>
  leave: () => Promise<void>
}) {
  const two = tryFor(ready, slot, joint, 2)
  const three = tryFor(ready, slot, joint, 3)
  return (
    <>
      <p>
        <b>The set ends.</b> Wait up to two minutes. Once it is back at 3 or less there is one try, with at least 3
        left:
      </p>
      {three && (!two || same(two, three)) ? (
        <button type="button" className={css.go} onClick={() => void take(three, 3)}>
          At 3 or less: {three.words}
        </button>
      ) : (
        <>
          {two && (
            <button type="button" className={css.go} onClick={() => void take(two, 2)}>
              At 2 or less: {two.words}
            </button>
          )}
          {three && (
            <button type="button" className={css.other} onClick={() => void take(three, 3)}>
              At 3: {three.words}
            </button>
          )}
        </>
      )}
      {!two && !three && <p>Nothing here is kind enough to try.</p>}
      <button type="button" className={css.other} onClick={() => void leave()}>
        Not back at 3 within two minutes: leave this exercise
      </button>
    </>
  )
}
