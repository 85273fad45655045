import { useState, useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { useSaving } from '../saving/useDoc'
import css from './shell.module.css'

const why = {
  away: 'waits for the network or the sign-in',
  refused: 'was refused',
  asked: 'asks something',
  stale: 'was changed by somebody else meanwhile',
}

/** Unsaved says in the head what is not saved yet, and leads to it. */
export function Unsaved() {
  const { outbox } = useSaving()
  const waits = useSyncExternalStore(outbox.subscribe, outbox.waiting)
  const [open, setOpen] = useState(false)
  if (waits.length === 0) return <span className={css.barWaits} role="status" />
  return (
    <span className={css.barWaits} role="status">
      <button type="button" className={css.barUnsaved} aria-expanded={open} onClick={() => setOpen(!open)}>
        {waits.length === 1 ? '1 change waits' : `${waits.length} changes wait`}
      </button>
      {open && (
        <ul className={css.barWaiting}>
          {waits.map((w) => (
            <li key={w.key}>
              <Link to={w.path} onClick={() => setOpen(false)}>
                {w.words}
              </Link>{' '}
              {why[w.is as keyof typeof why]}
            </li>
          ))}
        </ul>
      )}
    </span>
  )
}
