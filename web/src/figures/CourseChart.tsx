import type { PointView } from '../api/client'
import { clsx } from 'clsx'
import css from './course.module.css'

interface Props {
  points: PointView[]
  /** how far a reading may lie from the first without being a change */
  band: number
  name: string
  unit: string
  width?: number
  height?: number
}

const pad = { left: 34, right: 8, top: 8, bottom: 18 }

/** CourseChart is one site over time, with the band inside which nothing a tape can show has changed. */
export function CourseChart({ points, band, name, unit, width = 300, height = 120 }: Props) {
  if (points.length === 0) return <p className="caveat">{name}: not measured yet.</p>
  const first = points[0]!.value
  const days = points.map((p) => Date.parse(p.on) / 864e5)
  const all = [...points.map((p) => p.value), first - band, first + band]
  const lo = Math.min(...all) - 0.2
  const hi = Math.max(...all) + 0.2
  const span = Math.max(days[days.length - 1]! - days[0]!, 1)
  const x = (d: number) => pad.left + ((d - days[0]!) / span) * (width - pad.left - pad.right)
  const y = (v: number) => pad.top + ((hi - v) / (hi - lo)) * (height - pad.top - pad.bottom)
  const last = points[points.length - 1]
  const outside = (v: number) => Math.abs(v - first) > band
  return (
    <svg
      className={css.course}
      viewBox={`0 0 ${width} ${height}`}
      style={{ maxWidth: width }}
      role="img"
      aria-label={`${name}: ${points.map((p) => `${p.words} ${p.value} ${unit}`).join(', ')}. Noise band ±${band.toFixed(2)} ${unit} around the first.`}
    >
      <rect
        x={pad.left}
        width={width - pad.left - pad.right}
        y={y(first + band)}
        height={y(first - band) - y(first + band)}
        className={css.band}
      />
      <line x1={pad.left} x2={width - pad.right} y1={y(first)} y2={y(first)} className={css.first} />
      {[first - band, first, first + band].map((v) => (
        <text key={v} x={pad.left - 4} y={y(v) + 4} className={css.tick} textAnchor="end">
          {v.toFixed(1)}
        </text>
      ))}
      <polyline points={points.map((p, i) => `${x(days[i]!)},${y(p.value)}`).join(' ')} className={css.line} />
      {points.map((p, i) => (
        <circle
          key={p.on + i}
          cx={x(days[i]!)}
          cy={y(p.value)}
          r={p === last ? 4 : 2.6}
          className={outside(p.value) ? clsx(css.dot, css.out) : css.dot}
        >
          <title>
            {p.words}: {p.value} {unit}
          </title>
        </circle>
      ))}
      <text x={pad.left} y={height - 4} className={css.tick}>
        {points[0]!.words.replace(/ \d{4}$/, '')}
      </text>
      <text x={width - pad.right} y={height - 4} className={css.tick} textAnchor="end">
        {last!.words.replace(/ \d{4}$/, '')}
      </text>
    </svg>
  )
}
