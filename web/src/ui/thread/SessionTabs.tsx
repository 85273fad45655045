import { useState, type ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useMe } from '../../app/me'
import { laterBy } from '../days'
import { useClient } from './Client'
import { clsx } from 'clsx'
import css from './thread.module.css'

/** For how long a session that is past stands among the tabs, days; earlier ones are asked for. */
const nearDays = 14
/** So many stand there whatever their days. */
const fewest = 6

/** SessionTabs lists the client's sessions by day, the one in hand marked; where sets are logged, today's goes first. */
export function SessionTabs({
  place,
  id,
  children,
}: {
  place: 'week' | 'sheet' | 'log'
  id: string | null
  children?: ReactNode
}) {
  const client = useClient()
  const me = useMe()
  const latest = [...client.sessions].reverse()
  const today = latest.filter((s) => s.planned_on === me.data?.today)
  const listed = place === 'log' ? [...today, ...latest.filter((s) => !today.includes(s))] : latest
  const here = client.sessions.find((s) => s.id === id)
  const [all, setAll] = useState(false)
  const since = laterBy(me.data?.today ?? '', -nearDays)
  const shown = listed.filter((s, i) => all || i < fewest || s.planned_on >= since || s.id === id)
  const earlier = listed.length - shown.length
  return (
    <nav className={css.sessions} aria-label="Sessions">
      {place === 'week' && (
        <NavLink
          end
          to={`/clients/${client.id}/week${here ? `?of=${here.planned_on}` : ''}`}
          className={css.sessionTab}
        >
          ← The week
        </NavLink>
      )}
      {shown.map((s) => (
        <NavLink
          key={s.id}
          to={`/clients/${client.id}/${place}/${s.id}`}
          className={s.id === id ? clsx(css.sessionTab, css.here) : css.sessionTab}
        >
          <b>{s.name}</b> {s.when}
          {s.logged > 0 && <span> · {s.logged} sets done</span>}
        </NavLink>
      ))}
      {(earlier > 0 || all) && listed.length > fewest && (
        <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'Only the latest' : `${earlier} earlier`}
        </button>
      )}
      <span className={css.sessionsTools}>{children}</span>
    </nav>
  )
}
