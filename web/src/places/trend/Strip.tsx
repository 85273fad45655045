import type { Slice as Geometry, TrendWeek } from '../../api/client'
import { headColour, shade } from '../../figures/heads'
import { shortDay } from '../../ui/when'
import { clsx } from 'clsx'
import css from './trend.module.css'

/** Strip is one small slice a week: filled by what was done, its rim by what was planned. */
export function Strip({ right, weeks }: { right: Geometry; weeks: TrendWeek[] }) {
  return (
    <ol className={css.strip}>
      {weeks.map((w, i) => (
        <li key={w.monday} className={clsx(w.lighter && css.lighter)}>
          <Week geometry={right} week={w} />
          <span className={css.monday}>{(i % 2 === (weeks.length - 1) % 2 && shortDay(w.monday)) || '\u00a0'}</span>
        </li>
      ))}
    </ol>
  )
}

/** Week is one week's slice. */
function Week({ geometry, week }: { geometry: Geometry; week: TrendWeek }) {
  const done = new Map(week.slice.heads.map((h) => [h.id, h.level]))
  const planned = new Map(week.slice.heads.map((h, i) => [h.id, week.planned[i] ?? 0]))
  const words = `${week.words}. ${week.slice.text}`
  return (
    <svg viewBox="-0.04 -0.04 1.08 1.08" role="img" aria-label={words}>
      <title>{words}</title>
      <path d={geometry.outline} className={css.ground} />
      {geometry.regions.map((r) => (
        <path
          key={r.head}
          d={r.path}
          style={{ fill: headColour[r.head], fillOpacity: shade(done.get(r.head) ?? 0) }}
          className={css.region}
        />
      ))}
      {geometry.regions.map((r) => (
        <path
          key={r.head}
          d={r.path}
          fill="none"
          style={{ stroke: headColour[r.head], strokeWidth: 0.075 * (planned.get(r.head) ?? 0) }}
          className={css.rim}
        />
      ))}
      <circle cx={geometry.bone.x} cy={geometry.bone.y} r={geometry.bone_r} className={css.bone} />
      <path d={geometry.outline} className={css.outline} />
    </svg>
  )
}
