import { headColour } from './heads'
import css from './targetbar.module.css'

interface Props {
  /** the head */
  id: string
  total: number
  /** of the total, done apart from the sessions: drawn pale */
  elsewhere?: number
  /** over all stances: the fine line */
  low: number
  high: number
  /** of the total, done so far: the dark foot of it; what will not be done is hollow at its end */
  done?: { done: number; undone: number } | null
  target_low: number
  target_high: number
  /** what the whole width stands for */
  most: number
}

/** TargetBar is a head's effective sets against its target, the frame; what it says is read beside it. */
export function TargetBar({ id, total, elsewhere = 0, low, high, target_low, target_high, most, done }: Props) {
  const x = (v: number) => `${(100 * Math.min(v, most)) / most}%`
  const from = (a: number, b: number) => ({ left: x(a), width: `calc(${x(b)} - ${x(a)})` })
  const background = headColour[id]
  return (
    <span className={css.bar} aria-hidden="true">
      <i className={css.target} style={from(target_low, target_high)} />
      <i style={{ left: 0, width: x(total - elsewhere), background }} />
      {elsewhere > 0 && <i className={css.elsewhere} style={{ ...from(total - elsewhere, total), background }} />}
      {done && <i className={css.done} style={from(0, done.done)} />}
      {done && done.undone > 0 && (
        <i
          className={css.undone}
          style={from(total - elsewhere - Math.min(done.undone, total - elsewhere), total - elsewhere)}
        />
      )}
      <i className={css.whisker} style={from(low, high)} />
    </span>
  )
}
