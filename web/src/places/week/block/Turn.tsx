import { clsx } from 'clsx'
import type { Slice as Geometry, SliceView } from '../../../api/client'
import { headColour, shade } from '../../../figures/heads'
import css from './block.module.css'

/** Turn is one turn's small slice: fuller as its sets rise, its rim darker as its effort rises; a lighter one is paler. */
export function Turn({
  geometry,
  slice,
  reserve,
  lighter,
  made,
}: {
  geometry: Geometry
  slice: SliceView
  reserve: number
  lighter: boolean
  made: boolean
}) {
  const levels = new Map(slice.heads.map((h) => [h.id, h.level]))
  const hard = lighter ? 0 : 3 - reserve
  return (
    <svg viewBox="-0.07 -0.07 1.14 1.14" className={clsx(css.turn, lighter && css.lighter)} aria-hidden>
      <path d={geometry.outline} className={css.ground} />
      {geometry.regions.map((r) => (
        <path
          key={r.head}
          d={r.path}
          className={css.region}
          style={{ fill: headColour[r.head], fillOpacity: shade(levels.get(r.head) ?? 0) }}
        />
      ))}
      <circle cx={geometry.bone.x} cy={geometry.bone.y} r={geometry.bone_r} className={css.bone} />
      <path
        d={geometry.outline}
        className={css.rim}
        strokeDasharray={made ? undefined : '0.07 0.045'}
        style={{ strokeWidth: 0.026 + 0.026 * hard, strokeOpacity: 0.4 + 0.2 * hard }}
      />
    </svg>
  )
}
