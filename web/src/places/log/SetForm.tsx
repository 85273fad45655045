import { keptMark, shownMark } from '../../ui/units'
import { Button, Checkbox, Input, InputNumber, Segmented } from 'antd'
import { useRef, useState, type ReactNode } from 'react'
import { kinds } from '../../floor/kinds'
import type { Part } from '../../floor/types'
import type { LogSlot, Problem } from '../../api/client'
import css from './log.module.css'

export interface Typed {
  id: string
  side: 'both' | 'left' | 'right'
  set_no: number
  reps: number
  whole_kg: number
  reserve: number
  note: string
  faults: string[]
  technical: boolean
  /** what was seen lasted the whole set, which is not comparable then */
  throughout?: boolean
  /** beside the clean reps: with help, swung, half … */
  parts: Part[]
}

/** How a set is sent: as an answer to a question, or once more after the network was gone. */
export interface How {
  sure?: boolean
  done_at?: string
}

interface Props {
  slot: LogSlot
  start: Typed
  verb: string
  send: (typed: Typed, how: How) => Promise<Problem | null>
  cancel?: () => void
  remove?: () => Promise<Problem | null>
}

/**
 * SetForm is one set as it is typed: filled in from what is likely, so that most sets are one tap. A failed send keeps
 * everything.
 */
export function SetForm({ slot, start, verb, send, cancel, remove }: Props) {
  const [typed, setTyped] = useState(start)
  const [problem, setProblem] = useState<Problem | null>(null)
  const [missing, setMissing] = useState('')
  const [seeing, setSeeing] = useState(start.faults.length > 0 || start.technical)
  const busy = useRef(false)
  const [waiting, setWaiting] = useState(false)
  const first = useRef('') // when it was entered, once the network was gone
  const set = (part: Partial<Typed>) => {
    setTyped({ ...typed, ...part })
    setMissing('')
    if (problem?.ask) setProblem(null) // what was asked about is another set now
  }
  /** turn goes to the other arm, which is offered its own last load and reps where nothing else was typed. */
  const turn = (side: Typed['side']) => {
    const offered = (of: Typed['side']) => slot.next.arms.find((a) => a.side === of)
    const [was, is] = [offered(typed.side), offered(side)]
    const part: Partial<Typed> = { side }
    if (was && is && typed.set_no === was.set_no) {
      part.set_no = is.set_no
      if (typed.reps === was.reps) part.reps = is.reps
      if (typed.reserve === was.reserve) part.reserve = is.reserve
      if (same(typed.whole_kg, was.whole_kg)) part.whole_kg = is.whole_kg ?? NaN
    }
    set(part)
  }
  const once = async (go: () => Promise<Problem | null>) => {
    if (busy.current) return // a double tap is one set
    busy.current = true
    setWaiting(true)
    setProblem(await go())
    setWaiting(false)
    busy.current = false
  }
  const submit = () => {
    if (!Number.isFinite(typed.reps)) return setMissing('How many reps?')
    if (!Number.isFinite(typed.whole_kg)) return setMissing(`How many ${slot.load_label}?`)
    return log(false)
  }
  const log = (sure: boolean) =>
    once(async () => {
      const at = new Date().toISOString()
      const p = await send(typed, { ...(sure ? { sure } : {}), ...(first.current ? { done_at: first.current } : {}) })
      if (p?.away && !first.current) first.current = at
      return p
    })
  const number = (
    label: string,
    value: number,
    put: (v: number) => void,
    most: number,
    step: number,
    name: string,
    least = 0,
  ) => (
    <Count label={label}>
      <Button
        aria-label={`${label}, one step down`}
        onClick={() => put(Math.max(least, (Number.isFinite(value) ? value : 0) - step))}
      >
        −
      </Button>
      <InputNumber
        aria-label={label}
        name={name}
        inputMode="decimal"
        value={Number.isFinite(value) ? value : null}
        min={least}
        max={most}
        controls={false}
        changeOnWheel={false}
        onChange={(v) => put(v ?? NaN)}
      />
      <Button
        aria-label={`${label}, one step up`}
        onClick={() => put(Math.min(most, (Number.isFinite(value) ? value : 0) + step))}
      >
        +
      </Button>
    </Count>
  )
  return (
    <form
      className={css.setForm}
      onSubmit={(e) => {
        e.preventDefault()
        void submit()
      }}
    >
      <span className={css.setWhich}>
        Set {typed.set_no}
        {slot.sides.length > 1 && (
          <Segmented
            aria-label="Arm"
            value={typed.side}
            options={[
              { value: 'left', label: 'Left' },
              { value: 'right', label: 'Right' },
            ]}
            onChange={(side) => turn(side as Typed['side'])}
          />
        )}
      </span>
      {number('Reps', typed.reps, (reps) => set({ reps }), 100, 1, 'reps')}
      {number(
        slot.load_label,
        shownMark(typed.whole_kg, slot.unit),
        (mark) => set({ whole_kg: keptMark(mark, slot.unit) }),
        slot.unit === 'lb' ? 1100 : 500,
        1,
        'load',
        slot.unit === 'lb' ? -440 : -200,
      )}
      {number('Left in reserve', typed.reserve, (reserve) => set({ reserve }), 10, 1, 'reserve')}
      {seeing &&
        kinds.map(([kind, label]) => {
          const part = typed.parts.find((p) => p.kind === kind)
          const value = kind === 'hold' ? part?.seconds : part?.reps
          const put = (n: number) =>
            set({
              parts: [
                ...typed.parts.filter((p) => p.kind !== kind),
                ...(n > 0 ? [kind === 'hold' ? { kind, seconds: n } : { kind, reps: n }] : []),
              ],
            })
          return (
            <span key={kind}>
              {number(label, value ?? 0, (n) => put(Number.isFinite(n) ? n : 0), 100, kind === 'hold' ? 5 : 1, kind)}
            </span>
          )
        })}
      <label className={css.setNote}>
        <span className="field-label">Note</span>
        <Input name="note" value={typed.note} maxLength={300} onChange={(e) => set({ note: e.target.value })} />
      </label>
      <div className={css.setSeen}>
        <button type="button" className="link" aria-expanded={seeing} onClick={() => setSeeing(!seeing)}>
          {typed.faults.length > 0 || typed.technical
            ? `Seen: ${typed.faults.length}${typed.technical ? ', form ended it' : ''}`
            : 'What was seen, what was not clean?'}
        </button>
        {seeing && (
          <div className={css.setTicks} role="group" aria-label="What was seen">
            {slot.ticks.map((f) => (
              <Checkbox
                key={f.id}
                checked={typed.faults.includes(f.id)}
                onChange={(e) =>
                  set({ faults: e.target.checked ? [...typed.faults, f.id] : typed.faults.filter((x) => x !== f.id) })
                }
              >
                {f.seen} <i>({f.view})</i>
              </Checkbox>
            ))}
            <Checkbox checked={typed.technical} onChange={(e) => set({ technical: e.target.checked })}>
              <b>the set ended because form went</b>
            </Checkbox>
            {typed.faults.length > 0 && (
              <Checkbox checked={typed.throughout ?? false} onChange={(e) => set({ throughout: e.target.checked })}>
                all along the set: it is not comparable
              </Checkbox>
            )}
          </div>
        )}
      </div>
      <span className={css.setDo}>
        <Button type="primary" htmlType="submit" loading={waiting}>
          {verb}
        </Button>
        {cancel && <Button onClick={cancel}>Back</Button>}
        {remove && (
          <Button danger onClick={() => void once(remove)}>
            Remove it
          </Button>
        )}
      </span>
      {problem?.asksWhether && !missing && (
        <p className={css.setAsked} role="alert">
          <b>{problem.ask!.question}</b>
          <Button size="small" loading={waiting} onClick={() => void log(true)}>
            It was so, log it
          </Button>
          <span className="caveat">Or put the number right above.</span>
        </p>
      )}
      {(missing || (problem && !problem.asksWhether)) && (
        <p className="fault" role="alert">
          {missing ||
            (problem!.away
              ? `Not logged: ${problem!.message} What you typed stays; press again.`
              : `Not logged: ${problem!.message}`)}
        </p>
      )}
    </form>
  )
}

/** same says whether a load is the offered one, none counting as none. */
const same = (typed: number, offered: number | null) =>
  typed === offered || (!Number.isFinite(typed) && offered === null)

function Count({ label, children }: { label: string; children: ReactNode }) {
  return (
    <span className={css.count}>
      <span className="field-label">{label}</span>
      <span className={css.countRow}>{children}</span>
    </span>
  )
}
