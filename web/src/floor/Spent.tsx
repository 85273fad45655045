import { began, minutesAhead } from './machine'
import type { One } from './floors'
import css from './floor.module.css'

/** Spent is how long the session has gone on, with and without its warm-up, against what the client has. */
export function Spent({ one, clock }: { one: One; clock: number }) {
  const { ready, at } = one
  const from = began(ready, at)
  const minutes = from ? Math.floor((clock - from) / 60000) : 0
  const ahead = minutesAhead(ready, at)
  const ends = new Date(clock + 60000 * ahead).toLocaleTimeString([], {
    hour: '2-digit',
    minute: '2-digit',
    hour12: false,
  })
  if (!from)
    return (
      <span className={css.spent}>
        {ready.minutes > 0 && `${ready.minutes} min · `}
        {ready.warm_up}
      </span>
    )
  return (
    <span className={css.spent}>
      <b>{minutes}</b>
      {ready.minutes > 0 && ` of ${ready.minutes}`} min
      {ready.warm_up_min > 0 && (
        <span className={css.wide}> ({Math.round(minutes + ready.warm_up_min)} with the warm-up)</span>
      )}
      {ahead > 0 && ` · ends ${ends}`}
    </span>
  )
}
