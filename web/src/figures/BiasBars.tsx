import type { BiasView, HeadView } from '../api/client'
import { decimals, headColour } from './heads'
import css from './bars.module.css'

/** Code is a head's two letters on its colour's edge: read by letters, found by colour. */
export function Code({ id, code }: { id: string; code: string }) {
  return (
    <b className={css.code} style={{ borderColor: headColour[id] }}>
      {code}
    </b>
  )
}

/** A bar's full width stands for this bias. */
const fullBias = 1.5

interface Props {
  bias: BiasView[]
  graded: boolean
}

/** BiasBars says what each head gets of a set against the plain movement; graded work shows its range. */
export function BiasBars({ bias, graded }: Props) {
  const shown = bias.filter((b) => b.value > 0)
  const rest = bias.filter((b) => b.value <= 0).map((b) => b.code)
  return (
    <div className={css.bars}>
      {shown.map((b) => (
        <div
          key={b.id}
          className={css.barRow}
          title={
            graded
              ? `${b.name}: ${b.low}–${b.high} per hard set`
              : `${b.name}: plain ${decimals(b.plain)}, stretch ${decimals(b.stretch)}, squeeze ${decimals(b.squeeze)}`
          }
        >
          <span className={css.barName}>
            <Code id={b.id} code={b.code} /> {b.name}
          </span>
          <span className={css.barZone}>
            {b.zone ? `${b.zone} length` : graded ? `${decimals(b.low, 1)}–${decimals(b.high, 1)}` : ''}
          </span>
          <span className={css.barValue}>{decimals(b.value)}</span>
          <span className={css.barTrack}>
            <span
              className={css.barFill}
              style={{ width: `${Math.min(100, (b.value / fullBias) * 100)}%`, background: headColour[b.id] }}
            />
            {!graded && <span className={css.barOne} style={{ left: `${100 / fullBias}%` }} />}
            {b.high - b.low > 0.005 && (
              <span
                className={css.barWhisker}
                style={{ left: `${(b.low / fullBias) * 100}%`, width: `${((b.high - b.low) / fullBias) * 100}%` }}
              />
            )}
            {Math.abs(b.hollow - b.value) > 0.005 && (
              <span
                className={css.barHollow}
                style={{ left: `${Math.min(100, (b.hollow / fullBias) * 100)}%` }}
                title={`with rules whose reason does not hold: ${decimals(b.hollow)}`}
              />
            )}
          </span>
        </div>
      ))}
      {rest.length > 0 && <div className={css.rest}>nothing for {rest.join(' ')}</div>}
    </div>
  )
}

interface SetsProps {
  heads: HeadView[]
  /** effective sets the full width stands for */
  full: number
}

/** SetsBars lists effective sets per head, small. */
export function SetsBars({ heads, full }: SetsProps) {
  return (
    <div className={css.setsBars}>
      {heads.map((h) => (
        <div
          key={h.id}
          className={css.setsRow}
          title={h.low < h.high ? `${h.name}: ${decimals(h.low, 1)}–${decimals(h.high, 1)}` : h.name}
        >
          <Code id={h.id} code={h.code} />
          <span className={css.barTrack}>
            <span
              className={css.barFill}
              style={{ width: `${Math.min(100, (h.value / full) * 100)}%`, background: headColour[h.id] }}
            />
            {h.high > h.low && (
              <span
                className={css.barWhisker}
                style={{
                  left: `${Math.min(100, (h.low / full) * 100)}%`,
                  width: `${Math.min(100, ((h.high - h.low) / full) * 100)}%`,
                }}
              />
            )}
          </span>
          <span className={css.setsValue}>{decimals(h.value, 1)}</span>
        </div>
      ))}
    </div>
  )
}
