import { useEffect, useState } from 'react'
import { clsx } from 'clsx'
import { tone, type Senses } from './senses'
import css from './floor.module.css'

/** Pace counts the seconds of a slow lowering, by the way this device was asked to; off until it is pressed. */
export function Pace({ downS, pace }: { downS: number; pace: Senses['pace'] }) {
  const [on, setOn] = useState(false)
  const [beat, setBeat] = useState(0)
  useEffect(() => {
    if (!on) return
    const timer = setInterval(() => {
      setBeat((n) => n + 1)
      if (pace === 'sound') tone(330, 0.06)
      if (pace === 'shake') navigator.vibrate?.(25)
    }, 1000)
    return () => clearInterval(timer)
  }, [on, pace])
  if (pace === 'off' || downS <= 0) return null
  return (
    <button
      type="button"
      className={clsx(css.plain, on && pace === 'light' && beat % 2 === 1 && css.on)}
      aria-pressed={on}
      onClick={() => setOn(!on)}
    >
      {on ? 'Stop counting' : `Count ${downS} s down`}
    </button>
  )
}
