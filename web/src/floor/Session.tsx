import { useEffect, useRef, useState } from 'react'
import { clsx } from 'clsx'
import { Different, type Typed } from './Different'
import { End } from './End'
import { Next } from './Next'
import { Now, loadWords } from './Now'
import { Pace } from './Pace'
import { Pain } from './Pain'
import { SetsDone } from './SetsDone'
import {
  again,
  ahead,
  began,
  nextPair,
  leastLoss,
  minutesAhead,
  now as nowOf,
  partsOf,
  repsOf,
  type Now as What,
} from './machine'
import type { Floors, One } from './floors'
import type { Senses } from './senses'
import type { Part, SetTold, Stage, Tell } from './types'
import css from './floor.module.css'

interface Props {
  floors: Floors
  one: One
  clock: number
  leave: () => void
  senses: Senses
  mayPlan: boolean
}

type Open = 'no' | 'different' | 'pain'

const undoFor = 10_000

/** Session is one session on the floor: now, what differed, what hurts, next, the end. */
export function Session({ floors, one, clock, leave, senses, mayPlan }: Props) {
  const { ready, at, done } = one
  const [want, setWant] = useState<string | null>(null)
  const [open, setOpen] = useState<Open>('no')
  const [stages, setStages] = useState<Stage[]>([]) // done of this set
  const [typed, setTyped] = useState<Partial<Typed>>({})
  const [hold, setHold] = useState<{ from: number; seconds: number } | null>(null)
  const [ramp, setRamp] = useState(0)
  const [undo, setUndo] = useState<{ id: string; words: string; at: number } | null>(null)
  const [offered, setOffered] = useState<string | null>(null) // the slot in which leaving out was offered
  const busy = useRef(false)
  const now = nowOf(ready, at, want)
  const key = now ? `${now.slot.id} ${now.setNo} ${now.side}` : ''
  const [was, setWas] = useState(key)
  if (was !== key) {
    // another set: nothing of the last one holds
    setWas(key)
    setStages([])
    setTyped({})
    setHold(null)
  }
  const tell: Tell = (content) => floors.tell(ready.session, content)
  const stage = stages.length
  const reps = typed.reps ?? now?.aim ?? 0
  const load = typed.load ?? now?.load ?? -1

  const seconds = hold ? Math.max(0, Math.ceil(hold.seconds - (clock - hold.from) / 1000)) : null

  const enter = async (w: What, all: Stage[], t: Partial<Typed>) => {
    if (busy.current) return // a double tap is one set
    busy.current = true
    const of = t.load ?? w.load
    const whole = w.loads[of]?.whole_kg ?? t.kg ?? 0
    const extra: Part[] = t.extra ?? []
    const rungs = of === w.load ? w.row.loads : []
    let parts = partsOf(all, w.loads, rungs)
    const clean = all.length === 1 && all[0]!.is === 'clean' ? (t.reps ?? all[0]!.reps) : repsOf(all)
    if (extra.length && parts.length === 0) parts = [{ kind: 'clean', reps: clean }, ...extra]
    else parts = [...parts, ...extra]
    const set: SetTold = {
      slot: w.slot.id,
      side: w.side,
      set_no: w.setNo,
      reps: clean,
      whole_kg: whole,
      reserve: t.reserve ?? w.reserve,
      faults: t.faults ?? [],
      technical: t.technical ?? false,
      ...(t.throughout ? { throughout: true } : {}),
      ...(t.note ? { note: t.note } : {}),
      ...(parts.length ? { parts } : {}),
      set_up: w.swapped ? w.swapped.set_up : w.row.set_up,
      ...(w.restFrom
        ? { rest_s: Math.max(0, Math.min(7200, (floors.clock() - w.restFrom) / 1000 - w.step.about_s)) }
        : {}),
    }
    const id = await tell({ kind: 'set', set }).finally(() => (busy.current = false))
    if (id) {
      const did = all[0]!.is === 'hold' ? `${all[0]!.seconds ?? 0} s` : `${clean} reps`
      setUndo({ id, words: `Set ${w.setNo}: ${did}, ${loadWords(w, of, ready.hidden)}`, at: floors.clock() })
      setOpen('no')
      setStages([])
      setTyped({})
    }
  }

  const as = (w: What, i: number): Stage => {
    const s = w.stages[i]!
    return i === 0 && s.is === 'clean' ? { ...s, reps } : s
  }
  const tap = () => {
    if (!now) return
    const here = now.stages[stage]!
    if (here.is === 'hold' && !hold) return setHold({ from: clock, seconds: here.seconds ?? 0 })
    const told =
      here.is === 'hold' && hold
        ? { ...here, seconds: Math.min(here.seconds ?? 0, Math.max(1, Math.round((clock - hold.from) / 1000))) }
        : as(now, stage)
    setHold(null)
    const all = [...stages, told]
    if (all.length < now.stages.length) return setStages(all)
    void enter(now, all, typed)
  }
  // What opens is read from its beginning.
  useEffect(() => {
    window.scrollTo(0, 0)
  }, [open])
  // A hold that has run down is done.
  const tapped = useRef(tap)
  useEffect(() => {
    tapped.current = tap
  })
  useEffect(() => {
    if (!hold) return
    const timer = setTimeout(() => tapped.current(), 1000 * hold.seconds - (floors.clock() - hold.from))
    return () => clearTimeout(timer)
  }, [hold, floors])
  // Form went twice, or enough was done: the rest of the slot may go, which is a normal end of it.
  const over = now?.advised.ended && now.advised.move && !now.swapped ? now.slot : null
  const overSets = over ? ahead(ready, at).filter((s) => ready.slots[s.slot]!.id === over.id).length : 0
  const overReason = now?.say.startsWith('Form') ? 'form' : 'enough'
  const leaveOut = (slot: string, sets: number, reason: 'time' | 'form' | 'enough' | 'taken' | 'not_today') =>
    tell({ kind: 'left_out', left_out: { slot, sets, reason } })

  if (done.blocked)
    return (
      <section className={css.alarm} role="alert">
        <h2>No training now</h2>
        <p>{done.blocked}</p>
        <p>Sets that were done before are taken; the rest waits until it is cleared.</p>
        {done.referral && <p>{done.referral}</p>}
        <button type="button" className={css.other} onClick={leave}>
          Leave the floor
        </button>
      </section>
    )
  const minutes = began(ready, at) ? (clock - began(ready, at)) / 60000 : 0
  const aheadMin = minutesAhead(ready, at)
  const late = ready.minutes > 0 && at.sets.length > 0 && minutes + aheadMin > ready.minutes + 0.5
  const offers = late && now && offered !== now.slot.id
  const least = offers ? leastLoss(ready, at) : null
  const pair = offers ? nextPair(ready, at) : null
  const line = at.events.filter((e) => e.line).at(-1)
  const slotLeft = now ? ahead(ready, at).filter((s) => ready.slots[s.slot]!.id === now.slot.id).length : 0

  if (open === 'pain')
    return (
      <Pain
        ready={ready}
        at={at}
        slot={now?.slot ?? ready.slots.find((s) => s.id === at.sets.at(-1)?.slot) ?? ready.slots[0]!}
        setsLeft={slotLeft}
        resting={at.sets.length > 0}
        clock={clock}
        tell={tell}
        close={() => setOpen('no')}
      />
    )
  if (open === 'different' && now)
    return (
      <Different
        key={key}
        now={now}
        slot={now.slot}
        hidden={ready.hidden}
        start={{
          reps,
          load: load < 0 ? 0 : load,
          kg: null,
          reserve: typed.reserve ?? now.reserve,
          technical: false,
          faults: [],
          throughout: false,
          extra: [],
          note: '',
        }}
        verb="Done so"
        done={(t) => {
          const rest = now.stages.slice(stages.length).map((_, i) => as(now, stages.length + i))
          void enter(
            now,
            [...stages, ...rest].map((s, i) => (i === 0 && s.is === 'clean' ? { ...s, reps: t.reps } : s)),
            t,
          )
        }}
        cancel={() => setOpen('no')}
      />
    )
  if (!now)
    return (
      <>
        <End ready={ready} done={done} at={at} tell={tell} leave={leave} />
        <SetsDone ready={ready} at={at} tell={tell} mayEase={mayPlan} />
        <button type="button" className={css.hurts} onClick={() => setOpen('pain')}>
          It hurts
        </button>
      </>
    )
  const here = now.stages[stage]!
  const count = stage === 0 && here.is === 'clean' ? reps : here.reps
  const left = now.reserve === 0 ? '' : ` with ${typed.reserve ?? now.reserve} left`
  const after = now.stages[stage + 1]
  const held = hold ? `Stop at ${hold.seconds - (seconds ?? 0)} s` : `Start ${here.seconds ?? 0} s`
  const verb = here.is === 'hold' ? held : `Done: ${count}${after ? `, next: ${after.words}` : left}`
  return (
    <>
      {line && (
        <p className={css.line}>
          {line.by || 'The coach'}: {line.line}
        </p>
      )}
      {(least || pair) && (
        <div className={css.offer} role="status">
          <p>
            At this pace it goes {Math.round(minutes + aheadMin - ready.minutes)} min over. {pair?.words} {least?.words}
          </p>
          {pair && (
            <button
              type="button"
              className={css.plain}
              onClick={() => {
                setOffered(now.slot.id)
                void tell({ kind: 'paired', paired: { slot: pair.slot.id, done: pair.done } })
              }}
            >
              In turns
            </button>
          )}{' '}
          {least && (
            <button
              type="button"
              className={css.plain}
              onClick={() => {
                setOffered(now.slot.id)
                void leaveOut(least.slot.id, least.sets, 'time')
              }}
            >
              Leave it out
            </button>
          )}{' '}
          <button type="button" className={css.plain} onClick={() => setOffered(now.slot.id)}>
            Stay longer
          </button>
        </div>
      )}
      {over && (
        <div className={css.offer} role="status">
          <p>
            {now.say} {over.short}.
          </p>
          <button type="button" className={css.plain} onClick={() => void leaveOut(over.id, overSets, overReason)}>
            Go on to the next
          </button>
        </div>
      )}
      <Now
        ready={ready}
        now={now}
        reps={reps}
        setReps={(n) => setTyped({ ...typed, reps: n })}
        load={load}
        stage={stage}
        seconds={hold ? seconds : null}
        ramp={ramp}
        tickRamp={setRamp}
      >
        <Pace downS={now.row.down_s} pace={senses.pace} />
        <Next ready={ready} at={at} now={now} want={setWant} leaveOut={leaveOut} />
      </Now>
      <div className={clsx(css.actions, css.main, senses.left && css.leftHand)}>
        <button type="button" className={css.go} onClick={tap}>
          {verb}
        </button>
        <button type="button" className={css.other} onClick={() => setOpen('different')}>
          It was different
        </button>
        <button type="button" className={css.hurts} onClick={() => setOpen('pain')}>
          It hurts
        </button>
      </div>
      {undo && clock - undo.at < undoFor && (
        <p className={css.undo} role="status">
          {undo.words}{' '}
          <button
            type="button"
            className={css.plain}
            onClick={() => {
              const set = at.sets.find((s) => s.id === undo.id)
              setUndo(null)
              if (set) void tell({ kind: 'set', set: { ...again(set), withdrawn: true } })
            }}
          >
            Undo
          </button>
        </p>
      )}
      <SetsDone ready={ready} at={at} tell={tell} mayEase={mayPlan} />
      {mayPlan && <Line tell={(words) => void tell({ kind: 'line', line: words })} />}
    </>
  )
}

/** Line is a line of words to whoever is on the floor. */
function Line({ tell }: { tell: (words: string) => void }) {
  const [words, set] = useState('')
  return (
    <form
      className={css.note}
      onSubmit={(e) => {
        e.preventDefault()
        if (words.trim()) tell(words.trim())
        set('')
      }}
    >
      <label>
        A line to whoever is on the floor
        <input value={words} maxLength={140} placeholder="stay at 14" onChange={(e) => set(e.target.value)} />
      </label>
      <button type="submit" className={css.plain} disabled={!words.trim()}>
        Say it
      </button>
    </form>
  )
}
