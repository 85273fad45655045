import { useEffect, useRef } from 'react'
import { clsx } from 'clsx'
import { call, type Senses } from './senses'
import css from './floor.module.css'

interface Props {
  restS: number
  from: number // ms
  at: number // ms
  long: number // of the rest, from where it is said that it goes on
  senses: Senses
  children: React.ReactNode // the session's own clock
}

/** clockWords tells seconds as minutes and seconds. */
export const clockWords = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s) % 60).padStart(2, '0')}`

/** RestBand drains along the edge toward the thumb; what is left of it is told in seconds. */
export function RestBand({ restS, from, at, long, senses, children }: Props) {
  const runs = restS > 0 && from > 0
  const gone = runs ? (at - from) / 1000 : 0
  const left = restS - gone
  const over = runs && left <= 0
  const called = useRef(0)
  useEffect(() => {
    if (!over || called.current === from) return
    called.current = from
    if (gone < restS + 5) call(senses) // not for one that ended while nobody looked
  }, [over, from, gone, restS, senses])
  const goesOn = runs && gone > long * restS
  const words = !runs ? '' : !over ? clockWords(Math.ceil(left)) : goesOn ? `over, +${clockWords(-left)}` : 'rest over'
  return (
    <div className={clsx(css.rest, over && css.restOver)} data-left={runs ? Math.ceil(left) : ''}>
      <div
        className={css.drain}
        style={{ transform: `scaleX(${runs ? Math.min(1, Math.max(0, left / restS)) : 0})` }}
      />
      {children}
      <span className={css.restWords}>
        {runs && !over && <span className={css.small}>rest </span>}
        {words}
      </span>
      <span className="only-read" role="status">
        {over ? 'The rest is over.' : ''}
      </span>
    </div>
  )
}
