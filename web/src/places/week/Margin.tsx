import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { useClient } from '../../ui/thread/Client'
import type { Problem, SessionView, SetUpView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { SetsBars } from '../../figures/BiasBars'
import { Slice } from '../../figures/Slice'
import { SetUpSays } from '../../ui/stage/SetUpSays'
import { clsx } from 'clsx'
import css from './builder.module.css'

interface Props {
  session: SessionView
  view: SetUpView | null
  problem: Problem | null
  head: ReactNode
  show: (slot: number) => void
}

/** Margin is where the tool speaks: what the session gives, what is wrong with it, what the set-up in hand does. */
export function Margin({ session, view, problem, head, show }: Props) {
  const { right } = useCatalogue()
  const client = useClient()
  const wrong = session.findings.filter((f) => f.severity !== 'note')
  const notes = session.findings.filter((f) => f.severity === 'note')
  return (
    <aside className="margin" aria-label="What it comes to">
      {head}
      <h2>This session gives</h2>
      <div className={css.marginTotal}>
        <Slice geometry={right} view={session.total} size={96} places={1} unit="effective sets" />
        <SetsBars heads={session.total.heads} full={10} />
      </div>
      <p className="margin-line">
        <b className={session.over_minutes ? 'warn' : undefined}>{Math.round(session.minutes)} min</b> of{' '}
        {session.minutes_has}, {Math.round(session.warm_up)} of it warm-up{' '}
        {session.spent && (
          <details className={css.spent}>
            <summary>what takes it</summary>
            {session.spent}
          </details>
        )}{' '}
        · hard sets {session.hard_sets_flexors} bending, {session.hard_sets_extensors} straightening · what each head
        gets, slot by slot: <Link to={`/clients/${client.id}/week?of=${session.planned_on}`}>the week</Link>
      </p>
      {problem && !problem.away && (
        <div className="finding stop" role="alert">
          {problem.message}
        </div>
      )}
      {wrong.map((f, i) => (
        <div key={i} className={clsx('finding', f.severity)}>
          {f.text}
          {f.slot !== null && (
            <button type="button" className="link" onClick={() => show(f.slot!)}>
              Show slot {f.slot + 1}
            </button>
          )}
        </div>
      ))}
      {view && (
        <>
          <SetUpSays view={view} />
          <p className="margin-line">A set ends at: {view.stop}.</p>
        </>
      )}
      {notes.length > 0 && <h2>For this client</h2>}
      {notes.map((f, i) => (
        <div key={i} className="finding">
          {f.text}
        </div>
      ))}
      {notes.length > 0 && <p className="caveat">No diagnosis: local rules and licensed practice come first.</p>}
    </aside>
  )
}
