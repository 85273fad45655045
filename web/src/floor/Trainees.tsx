import { clsx } from 'clsx'
import { Slice } from '../figures/Slice'
import { clockWords } from './RestBand'
import { ahead, now as nowOf } from './machine'
import type { One } from './floors'
import type { OnFloor } from './types'
import css from './floor.module.css'

interface Props {
  near: OnFloor[]
  sessions: Record<string, One>
  here: string
  clock: number
  right: Parameters<typeof Slice>[0]['geometry']
  go: (n: OnFloor) => void
  more: (() => void) | null // shows the other days
}

/** restLeft is what is left of a session's rest, s; null where none runs. */
const restLeft = (one: One, clock: number) => {
  const n = nowOf(one.ready, one.at)
  return n && n.restFrom ? n.restS - (clock - n.restFrom) / 1000 : null
}

/** Trainees are those on the floor, whose rest is up first comes first; a tap goes over. */
export function Trainees({ near, sessions, here, clock, right, go, more }: Props) {
  const order = (n: OnFloor) => {
    const one = sessions[n.session]
    if (!one || one.at.sets.length === 0) return 1e6
    return restLeft(one, clock) ?? 1e5
  }
  const list = [...near].sort((a, b) => order(a) - order(b))
  return (
    <nav className={css.trainees} aria-label="On the floor">
      {list.map((n) => {
        const one = sessions[n.session]
        const left = one ? restLeft(one, clock) : null
        const steps = one ? ahead(one.ready, one.at).length : n.sets - n.done
        const words = !one
          ? n.blocked
            ? 'no training'
            : n.done > 0
              ? `${n.done} of ${n.sets} sets`
              : n.when
          : steps === 0
            ? 'done'
            : left === null
              ? one.at.sets.length
                ? 'lifting'
                : n.today
                  ? 'to begin'
                  : n.when
              : left > 0
                ? `rest ${clockWords(Math.ceil(left))}`
                : 'rest over'
        return (
          <button
            key={n.session}
            type="button"
            className={clsx(css.trainee, n.session === here && css.on, left !== null && left <= 0 && css.ready)}
            aria-pressed={n.session === here}
            onClick={() => go(n)}
          >
            <Slice geometry={right} view={n.slice} size={40} />
            <span>
              <b>{n.name.split(' ')[0]}</b>
              <span className={css.small}>{words}</span>
            </span>
            {left !== null && left > 0 && one && (
              <i
                className={css.traineeBand}
                style={{ transform: `scaleX(${Math.min(1, left / Math.max(1, nowOf(one.ready, one.at)!.restS))})` }}
              />
            )}
          </button>
        )
      })}
      {more && (
        <button type="button" className={css.plain} onClick={more} aria-label="Sessions of other days">
          …
        </button>
      )}
    </nav>
  )
}
