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
  target_low: number
  target_high: number
  /** what the whole width stands for */
  most: number
}

/** TargetBar is a head's effective sets against its target, the frame; what it says is read beside it. */
export function TargetBar({ id, total, elsewhere = 0, low, high, target_low, target_high, most }: Props) {
  const x = (v: number) => `${(100 * Math.min(v, most)) / most}%`
  const from = (a: number, b: number) => ({ left: x(a), width: `calc(${x(b)} - ${x(a)})` })
  const background = headColour[id]
  return (
    <span className={css.bar} aria-hidden="true">
      <i className={css.target} style={from(target_low, target_high)} />
      <i style={{ left: 0, width: x(total - elsewhere), background }} />
      {elsewhere > 0 && <i className={css.elsewhere} style={{ ...from(total - elsewhere, total), background }} />}
      <i className={css.whisker} style={from(low, high)} />
    </span>
  )
}
