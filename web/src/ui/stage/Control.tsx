import type { ControlView } from '../../api/client'
import { clsx } from 'clsx'
import css from './stage.module.css'

interface Props {
  control: ControlView
  turn?: (key: string, value: number | string) => void
}

/** Control is a setting's keyboard twin: a value with a step down and up, or a choice of words. */
export function Control({ control: c, turn }: Props) {
  if (c.choices.length > 0) {
    return (
      <label className={c.turned ? clsx(css.control, css.turned) : css.control}>
        <span className={css.controlLabel}>{c.label}</span>
        <select value={String(c.value)} disabled={!turn} onChange={(e) => turn?.(c.key, e.target.value)}>
          {c.choices.map((w) => (
            <option key={w.value} value={w.value}>
              {w.words}
            </option>
          ))}
        </select>
      </label>
    )
  }
  const to = (value: number | null) => value !== null && turn?.(c.key, value)
  // Three steps: as far as the limit lets them; the core snaps what it gets.
  const leap = (sign: number) => {
    const target = Number(c.value) + sign * 3 * c.step!
    turn?.(c.key, Math.min(c.max!, Math.max(c.min!, target)))
  }
  return (
    <span className={c.turned ? clsx(css.control, css.turned) : css.control}>
      <span className={css.controlLabel}>{c.label}</span>
      <span className={css.controlSteps}>
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${c.label} down`}
          disabled={!turn || c.down === null}
          onClick={() => to(c.down)}
        >
          −
        </button>
        <span
          className={css.controlValue}
          role="spinbutton"
          tabIndex={turn ? 0 : -1}
          aria-label={c.label}
          aria-valuenow={Number(c.value)}
          aria-valuemin={c.min!}
          aria-valuemax={c.max!}
          aria-valuetext={c.words}
          aria-disabled={!turn}
          onKeyDown={(e) => {
            const sign = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[e.key]
            if (!sign || !turn) return
            e.preventDefault()
            if (e.shiftKey) leap(sign)
            else to(sign < 0 ? c.down : c.up)
          }}
        >
          {c.words}
        </span>
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${c.label} up`}
          disabled={!turn || c.up === null}
          onClick={() => to(c.up)}
        >
          +
        </button>
      </span>
    </span>
  )
}
