import type { CoursePoint, CourseShown } from '../../api/client'
import css from './trend.module.css'

const [width, height] = [420, 150]
const pad = { left: 50, right: 10, top: 10, bottom: 22 }
const day = (iso: string) => Date.parse(iso) / 864e5

/** shown are the sessions of a course that are drawn: the last half year of it, so that the window is wide enough to see. */
function shown(points: CoursePoint[]): CoursePoint[] {
  const told = points.filter((p) => p.kg > 0)
  const last = told.at(-1)
  return last ? told.filter((p) => day(last.on) - day(p.on) <= 182) : []
}

/** ticks are round values between two, three or four of them. */
function ticks(low: number, high: number): number[] {
  const raw = (high - low) / 3
  const ten = 10 ** Math.floor(Math.log10(raw))
  const step = [1, 2, 2.5, 5, 10].map((k) => k * ten).find((s) => s >= raw) ?? raw
  const out: number[] = []
  for (let v = Math.ceil(low / step) * step; v <= high; v += step) out.push(Number(v.toFixed(4)))
  return out
}

/**
 * Course draws what could be lifted once, session by session: dots, hollow where a session does not compare; the line of
 * the window with the band that sessions scatter in; a tick where something was decided.
 */
export function Course({ course }: { course: CourseShown }) {
  const points = shown(course.points)
  if (points.length === 0) return <p className="caveat">No session of it tells a load yet.</p>
  const band = course.band
  const values = [...points.map((p) => p.kg), ...band.flatMap((b) => [b.low, b.high])]
  const reach = Math.max(...values) - Math.min(...values) || Math.max(...values) * 0.1
  const [low, high] = [Math.min(...values) - 0.08 * reach, Math.max(...values) + 0.08 * reach]
  const first = day(points[0]!.on)
  const last = Math.max(day(points.at(-1)!.on), first + 14)
  const x = (on: string) => pad.left + ((day(on) - first) / (last - first)) * (width - pad.left - pad.right)
  const y = (v: number) => pad.top + ((high - v) / (high - low)) * (height - pad.top - pad.bottom)
  const line = (list: [string, number][]) => list.map(([on, v]) => `${x(on)},${y(v)}`).join(' ')
  const months = monthsBetween(first, last)
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={css.chart}
      role="img"
      aria-label={`${course.name}: ${points.length} sessions, ${points[0]!.words} on ${points[0]!.when}, ${points.at(-1)!.words} on ${points.at(-1)!.when}. ${course.says}`}
    >
      {ticks(low, high).map((v) => (
        <g key={v}>
          <line x1={pad.left} x2={width - pad.right} y1={y(v)} y2={y(v)} className={css.grid} />
          <text x={pad.left - 6} y={y(v) + 4} textAnchor="end" className={css.axis}>
            {v}
          </text>
        </g>
      ))}
      <text x={0} y={height - 5} className={css.axis}>
        kg once
      </text>
      {months.map((m) => (
        <text key={m.iso} x={x(m.iso)} y={height - 5} className={css.axis}>
          {m.label}
        </text>
      ))}
      {band.length > 1 && (
        <>
          <polygon
            points={`${line(band.map((b) => [b.on, b.high]))} ${line([...band].reverse().map((b) => [b.on, b.low]))}`}
            className={css.band}
          />
          <polyline points={line(band.map((b) => [b.on, b.kg]))} className={css.line} />
        </>
      )}
      {course.ticks
        .filter((t) => day(t.on) >= first && day(t.on) <= last)
        .map((t) => (
          <g key={t.on + t.words} className={css.tick}>
            <title>{t.words}</title>
            <line x1={x(t.on)} x2={x(t.on)} y1={pad.top} y2={height - pad.bottom} />
            <path d={`M${x(t.on)} ${pad.top + 8} l-5 -8 h10 z`} />
          </g>
        ))}
      {points.map((p, i) => (
        <circle
          key={p.on + String(i)}
          cx={x(p.on)}
          cy={y(p.kg)}
          r={p.hollow ? 3.4 : 3}
          className={p.hollow ? css.hollow : css.dot}
        >
          <title>
            {p.when}: {p.load} × {p.reps}, {p.words} once{p.hollow && ` (not compared: ${p.hollow})`}
          </title>
        </circle>
      ))}
    </svg>
  )
}

/** monthsBetween are the firsts of the months between two days, or the first day alone. */
function monthsBetween(first: number, last: number) {
  const out: { iso: string; label: string }[] = []
  const at = new Date(first * 864e5)
  for (let m = new Date(Date.UTC(at.getUTCFullYear(), at.getUTCMonth() + 1, 1)); m.getTime() / 864e5 < last - 6;) {
    out.push({ iso: m.toISOString().slice(0, 10), label: m.toLocaleDateString('en-GB', { month: 'short' }) })
    m = new Date(Date.UTC(m.getUTCFullYear(), m.getUTCMonth() + 1, 1))
  }
  if (out.length > 0) return out
  return [
    {
      iso: at.toISOString().slice(0, 10),
      label: at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }),
    },
  ]
}
