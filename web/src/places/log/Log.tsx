import { putFresh, queries, touched } from '../../api/queries'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { api, got, problemOf, type EntryView, type LogSlot, type LogView, type Problem } from '../../api/client'
import { useSending } from '../../api/sending'
import { useCatalogue, useSignedOut } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { Slice } from '../../figures/Slice'
import { Asks } from '../../ui/decisions/Proposals'
import { NameSession, useClient, useSessionId } from '../../ui/thread/Client'
import { SessionTabs } from '../../ui/thread/SessionTabs'
import { SetForm, type How, type Typed } from './SetForm'
import { clsx } from 'clsx'
import css from './log.module.css'
import { message } from '../../ui/tell'

/** partsOf are the parts of a set that had more than clean reps. */
const partsOf = (t: Typed) =>
  t.parts.length > 0 ? { parts: [...(t.reps > 0 ? [{ kind: 'clean' as const, reps: t.reps }] : []), ...t.parts] } : {}

type Send = (
  slot: string,
  typed: Typed,
  extra?: { replaces: string; withdrawn?: boolean },
  how?: How,
) => Promise<Problem | null>

/** Log is what was done: a set a line, per side where the arms take turns. */
export function Log() {
  const client = useClient()
  const id = useSessionId()
  const cache = useQueryClient()
  const signedOut = useSignedOut()
  const path = { client: client.id, session: id ?? '' }
  const log = useQuery(queries.log(client.id, id))
  const write = useMutation({
    mutationFn: ([slot, typed, extra, how]: Parameters<Send>) =>
      got(
        api.POST('/clients/{client}/sessions/{session}/log', {
          params: { path },
          body: {
            id: typed.id,
            slot,
            side: typed.side,
            set_no: typed.set_no,
            reps: typed.reps,
            whole_kg: typed.whole_kg,
            reserve: typed.reserve,
            note: typed.note,
            faults: typed.faults,
            technical: typed.technical,
            ...(typed.throughout && typed.faults.length > 0 ? { throughout: true } : {}),
            ...partsOf(typed),
            ...extra,
            ...how,
          },
        }),
      ),
  })
  const send: Send = async (...typed) => {
    try {
      const next = await write.mutateAsync(typed)
      putFresh(cache, queries.log(client.id, id).queryKey, next)
      touched(cache, ['log'], ['log', id])
      return null
    } catch (e) {
      const p = problemOf(e)
      if (p.status === 401) signedOut()
      if (p.status === 409) {
        touched(cache, ['log'])
        message.warning(
          'This was logged already, with other numbers. What is kept stands in the list: correct it there.',
          8,
        )
      }
      return p
    }
  }
  const { session: named } = useParams()
  if (id && !named) return <NameSession place="log" id={id} />
  return (
    <>
      <SessionTabs place="log" id={id} />
      {log.data ? (
        <Slots key={id} client={client.id} log={log.data} send={send} />
      ) : id === null ? (
        <p className="hint">Nothing planned yet, so nothing to log.</p>
      ) : (
        <Waiting query={log} />
      )}
    </>
  )
}

function Slots({ client, log, send }: { client: string; log: LogView; send: Send }) {
  const first = log.slots.find((s) => !s.next.done)?.id ?? null
  const [open, setOpen] = useState<string | null>(first)
  // Once a slot has all its sets the next one opens by itself.
  const [was, setWas] = useState(first)
  if (first !== was) {
    setWas(first)
    if (open === was) setOpen(first)
  }
  return (
    <main className={css.log}>
      {log.slots.length === 0 ? (
        <p className="hint">This session has no slots yet.</p>
      ) : (
        <p className={css.came}>{log.came}</p>
      )}
      {log.slots.map((s) => (
        <Slot
          key={s.id}
          slot={s}
          open={s.id === open}
          toggle={() => setOpen(s.id === open ? null : s.id)}
          send={send}
        />
      ))}
      {log.slots.length > 0 && log.slots.every((s) => s.next.done) && (
        <section className={css.asks} aria-label="What to decide">
          <Asks client={client} names={log.slots.map((s) => s.title)} />
        </section>
      )}
      {log.told.length > 0 && (
        <ul className={css.told}>
          {log.told.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      )}
      {log.referral && (
        <details className={css.told}>
          <summary>For whoever examines what hurt</summary>
          <p>{log.referral}</p>
          <button type="button" className="link" onClick={() => window.print()}>
            Print
          </button>{' '}
          <a
            href={`mailto:?subject=${encodeURIComponent('What hurt in training')}&body=${encodeURIComponent(log.referral)}`}
          >
            Send
          </a>
        </details>
      )}
      <p className="hint">
        Pain over 3 of 10, or rising, ends the set. Chest pain, fainting, severe breathlessness or sudden weakness: stop
        and call emergency services.
      </p>
    </main>
  )
}

function Slot({ slot, open, toggle, send }: { slot: LogSlot; open: boolean; toggle: () => void; send: Send }) {
  const { right } = useCatalogue()
  const [correcting, setCorrecting] = useState<EntryView | null>(null)
  const putRight = useSending()
  const again = (e: EntryView, what: string): Typed => ({
    id: putRight.idOf([e.id, what]),
    side: e.side,
    set_no: e.set_no,
    reps: e.reps,
    whole_kg: e.whole_kg,
    reserve: e.reserve,
    note: e.note,
    faults: e.faults,
    technical: e.technical,
    parts: [], // what it was made of stays
  })
  return (
    <section className={open ? clsx(css.slot, css.open) : css.slot}>
      <button type="button" className={css.face} aria-expanded={open} onClick={toggle}>
        <Slice geometry={right} view={slot.slice} size={44} />
        <span className={css.title}>
          <b>{slot.title}</b>
          {slot.details && <span>{slot.details}</span>}
          <span>{slot.planned ? `${slot.dose_words} · ${slot.load_words}` : 'taken out of the plan since'}</span>
        </span>
        <span className={slot.next.done && slot.planned ? clsx(css.logCount, css.full) : css.logCount}>
          {slot.entered}
        </span>
      </button>
      {open && (
        <div className={css.body}>
          {slot.cautions.map((c) => (
            <p key={c} className={css.caution}>
              {c}
            </p>
          ))}
          {slot.last && <p className={css.last}>Last time, {slot.last}</p>}
          {slot.entries.length > 0 && (
            <ol className={css.sets}>
              {slot.entries.map((e) =>
                correcting?.id === e.id ? (
                  <li key={e.id} className="log-correct">
                    <SetForm
                      slot={slot}
                      start={{
                        id: uuidv7(),
                        side: e.side,
                        set_no: e.set_no,
                        reps: e.reps,
                        whole_kg: e.whole_kg,
                        reserve: e.reserve,
                        note: e.note,
                        faults: e.faults,
                        technical: e.technical,
                        parts: [],
                      }}
                      verb="Correct"
                      send={async (t, how) => {
                        const problem = await send(slot.id, t, { replaces: e.id }, how)
                        if (!problem) setCorrecting(null)
                        return problem
                      }}
                      cancel={() => setCorrecting(null)}
                      remove={async () => {
                        const problem = await send(slot.id, again(e, 'out'), { replaces: e.id, withdrawn: true })
                        if (!problem) setCorrecting(null)
                        return problem
                      }}
                    />
                  </li>
                ) : (
                  <li key={e.id}>
                    <span className={css.no}>
                      {e.set_no}
                      {e.side !== 'both' && <b>{e.side === 'left' ? 'L' : 'R'}</b>}
                    </span>
                    <span className={css.did}>
                      <b>{e.reps} reps</b> · {e.load_words} · {e.reserve === 0 ? 'to the limit' : `${e.reserve} left`}
                      {e.grip && <i> {e.grip}</i>}
                      {e.technical && <b className="warn"> form ended it</b>}
                      {e.seen.length > 0 && <i> seen: {e.seen.join('; ')}</i>}
                      {e.parts && <i> {e.parts}</i>}
                      {e.note && <i> {e.note}</i>}
                      {e.by && <i> {e.by}</i>}
                      {e.mark && <b className={css.mark}> {e.mark}</b>}
                      {e.unsure && (
                        <span className={css.unsure} role="alert">
                          {e.unsure}{' '}
                          <button
                            type="button"
                            className="link"
                            onClick={() => void send(slot.id, again(e, 'so'), { replaces: e.id }, { sure: true })}
                          >
                            It was so
                          </button>
                        </span>
                      )}
                    </span>
                    <span
                      className={css.max}
                      title={e.hollow ? `not counted in its series: ${e.hollow}` : 'estimated load for one repetition'}
                    >
                      {e.e1rm && (
                        <details>
                          <summary>1RM ≈ {e.e1rm}</summary>
                          {e.e1rm_why}
                        </details>
                      )}
                    </span>
                    <button type="button" className="link" onClick={() => setCorrecting(e)}>
                      Correct
                    </button>
                  </li>
                ),
              )}
            </ol>
          )}
          {slot.next.grip && (
            <p className={css.last}>
              Set {slot.next.set_no}: <b>{slot.next.grip}</b>
            </p>
          )}
          <SetForm
            key={slot.entries.map((e) => e.id).join()}
            slot={slot}
            start={{
              id: uuidv7(),
              side: slot.next.side,
              set_no: slot.next.set_no,
              reps: slot.next.reps,
              whole_kg: slot.next.whole_kg ?? NaN,
              reserve: slot.next.reserve,
              note: '',
              faults: [],
              technical: false,
              parts: [],
            }}
            verb={slot.next.done ? 'Log one more set' : 'Log this set'}
            send={(t, how) => send(slot.id, t, undefined, how)}
          />
        </div>
      )}
    </section>
  )
}
