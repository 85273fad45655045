import type { HeadWeeks } from '../../api/client'
import { headColour, tenths } from '../../figures/heads'
import css from './trend.module.css'

const [step, height] = [16, 46]

/** Heads is each head over the weeks: bars for what was done, a rim for what was planned, the target as a band. */
export function Heads({ heads }: { heads: HeadWeeks[] }) {
  const most = Math.max(1, ...heads.flatMap((h) => [...h.planned, ...h.done, h.high])) * 1.05
  const y = (v: number) => height - (v / most) * height
  return (
    <section className={css.heads} aria-label="Heads over the weeks">
      {heads.map((h) => {
        const weeks = h.done.length
        const [did, last] = [h.done.at(-2) ?? 0, h.planned.at(-1) ?? 0]
        return (
          <figure key={h.id}>
            <figcaption>
              <b>{h.code}</b> {h.name}
            </figcaption>
            <svg
              viewBox={`0 0 ${step * weeks} ${height}`}
              role="img"
              aria-label={`${h.name}: last week ${tenths(did)} effective sets done, this week ${tenths(last)} planned, target ${tenths(h.low)} to ${tenths(h.high)}`}
            >
              <rect x={0} width={step * weeks} y={y(h.high)} height={y(h.low) - y(h.high)} className={css.target} />
              {h.done.map((d, i) => (
                <g key={i}>
                  <rect
                    x={step * i + 2}
                    width={step - 4}
                    y={y(d)}
                    height={height - y(d)}
                    style={{ fill: headColour[h.id] }}
                  />
                  <rect
                    x={step * i + 2}
                    width={step - 4}
                    y={y(h.planned[i] ?? 0)}
                    height={height - y(h.planned[i] ?? 0)}
                    className={css.planned}
                  />
                </g>
              ))}
            </svg>
            <span className={css.target0}>
              {tenths(did)} last week · target {tenths(h.low)}–{tenths(h.high)}
            </span>
          </figure>
        )
      })}
    </section>
  )
}
