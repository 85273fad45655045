import { clsx } from 'clsx'
import { NavLink } from 'react-router'
import { useMe } from '../../app/me'
import css from './studio.module.css'

/** StudioTabs are the pages of the studio; who belongs to it, and what happened, is its owners' to see. */
export function StudioTabs() {
  const me = useMe().data
  if (me?.role !== 'owner') return null
  const page = ({ isActive }: { isActive: boolean }) => clsx(css.tab, isActive && css.here)
  return (
    <nav className={css.tabs} aria-label="Pages of the studio">
      <NavLink end className={page} to="/studio">
        Rooms
      </NavLink>
      <NavLink className={page} to="/studio/people">
        People
      </NavLink>
      <NavLink className={page} to="/studio/security">
        Security
      </NavLink>
    </nav>
  )
}
