import type { ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useMe } from '../../app/me'
import { useClient } from './Client'
import { clsx } from 'clsx'
import css from './thread.module.css'

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
      {listed.map((s) => (
        <NavLink
          key={s.id}
          to={`/clients/${client.id}/${place}/${s.id}`}
          className={s.id === id ? clsx(css.sessionTab, css.here) : css.sessionTab}
        >
          <b>{s.name}</b> {s.when}
          {s.logged > 0 && <span> · {s.logged} sets done</span>}
        </NavLink>
      ))}
      <span className={css.sessionsTools}>{children}</span>
    </nav>
  )
}
