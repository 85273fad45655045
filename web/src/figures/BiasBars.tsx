import type { BiasView, HeadView } from '../api/client'
import { decimals, headColour } from './heads'

/** Code is a head's two letters on its colour's edge: read by letters, found by colour. */
export function Code({ id, code }: { id: string; code: string }) {
  return (
    <b className="code" style={{ borderColor: headColour[id] }}>
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
    <div className="bars">
      {shown.map((b) => (
        <div
          key={b.id}
          className="bar-row"
          title={
            graded
              ? `${b.name}: ${b.low}–${b.high} per hard set`
              : `${b.name}: plain ${decimals(b.plain)}, stretch ${decimals(b.stretch)}, squeeze ${decimals(b.squeeze)}`
          }
        >
          <span className="bar-name">
            <Code id={b.id} code={b.code} /> {b.name}
          </span>
          <span className="bar-zone">
            {b.zone ? `${b.zone} length` : graded ? `${decimals(b.low, 1)}–${decimals(b.high, 1)}` : ''}
          </span>
          <span className="bar-value">{decimals(b.value)}</span>
          <span className="bar-track">
            <span
              className="bar-fill"
              style={{ width: `${Math.min(100, (b.value / fullBias) * 100)}%`, background: headColour[b.id] }}
            />
            {!graded && <span className="bar-one" style={{ left: `${100 / fullBias}%` }} />}
            {b.high - b.low > 0.005 && (
              <span
                className="bar-whisker"
                style={{ left: `${(b.low / fullBias) * 100}%`, width: `${((b.high - b.low) / fullBias) * 100}%` }}
              />
            )}
            {Math.abs(b.hollow - b.value) > 0.005 && (
              <span
                className="bar-hollow"
                style={{ left: `${Math.min(100, (b.hollow / fullBias) * 100)}%` }}
                title={`with rules whose reason does not hold: ${decimals(b.hollow)}`}
              />
            )}
          </span>
        </div>
      ))}
      {rest.length > 0 && <div className="bars-rest">nothing for {rest.join(' ')}</div>}
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
    <div className="sets-bars">
      {heads.map((h) => (
        <div
          key={h.id}
          className="sets-row"
          title={h.low < h.high ? `${h.name}: ${decimals(h.low, 1)}–${decimals(h.high, 1)}` : h.name}
        >
          <Code id={h.id} code={h.code} />
          <span className="bar-track">
            <span
              className="bar-fill"
              style={{ width: `${Math.min(100, (h.value / full) * 100)}%`, background: headColour[h.id] }}
            />
            {h.high > h.low && (
              <span
                className="bar-whisker"
                style={{
                  left: `${Math.min(100, (h.low / full) * 100)}%`,
                  width: `${Math.min(100, ((h.high - h.low) / full) * 100)}%`,
                }}
              />
            )}
          </span>
          <span className="sets-value">{decimals(h.value, 1)}</span>
        </div>
      ))}
    </div>
  )
}
