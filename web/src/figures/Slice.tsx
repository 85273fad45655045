import { useId, useState } from 'react'
import type { HeadView, Slice as Geometry, SliceView } from '../api/client'
import { decimals, headColour, shade } from './heads'
import css from './slice.module.css'

interface Props {
  geometry: Geometry
  view: SliceView
  /** px; from 72 on the codes are written, from 150 on the numbers too. */
  size: number
  places?: number
  /** hatches are always drawn for paper; on screen only on large slices. */
  hatched?: boolean
  unit?: string
  /** asks what would train a head, by pointer or by key */
  ask?: (head: string) => void
}

/** Slice is the cross-section of the arm, each head's region filled by what it gets. */
export function Slice({ geometry, view, size, places = 2, hatched = size >= 72, unit = '', ask }: Props) {
  const id = useId()
  const [over, setOver] = useState<HeadView | null>(null)
  const heads = new Map(view.heads.map((h) => [h.id, h]))
  const small = size < 72
  const leading = view.heads.find((h) => h.leading)
  return (
    <span className={css.slice} style={{ width: size, height: size }}>
      <svg viewBox="0 0 1 1" width={size} height={size} role={ask ? 'group' : 'img'} aria-label={view.text}>
        {hatched && (
          <defs>
            {geometry.regions.map((r) => (
              <pattern
                key={r.head}
                id={`${id}${r.head}`}
                width={r.pitch}
                height={r.pitch}
                patternUnits="userSpaceOnUse"
                patternTransform={`rotate(${r.hatch})`}
              >
                <line x1="0" y1={r.pitch / 2} x2={r.pitch} y2={r.pitch / 2} className={css.hatch} strokeWidth={0.008} />
              </pattern>
            ))}
          </defs>
        )}
        <path d={geometry.outline} className={css.ground} />
        {geometry.regions.map((r) => {
          const head = heads.get(r.head)
          const level = head?.level ?? 0
          return (
            <g
              key={r.head}
              onPointerEnter={() => head && setOver(head)}
              onPointerLeave={() => setOver(null)}
              {...(ask && head
                ? {
                    role: 'button',
                    tabIndex: 0,
                    className: css.ask,
                    'aria-label': `What would train the ${head.name}?`,
                    onFocus: () => setOver(head),
                    onBlur: () => setOver(null),
                    onClick: () => ask(r.head),
                    onKeyDown: (e: React.KeyboardEvent) => (e.key === 'Enter' || e.key === ' ') && ask(r.head),
                  }
                : {})}
            >
              <path
                d={r.path}
                className={css.region}
                style={{ fill: headColour[r.head], fillOpacity: shade(level) }}
                strokeWidth={small ? 0.03 : 0.014}
              />
              {hatched && level > 0 && (
                <path d={r.path} fill={`url(#${id}${r.head})`} opacity={0.15 + 0.4 * level} pointerEvents="none" />
              )}
            </g>
          )
        })}
        <circle cx={geometry.bone.x} cy={geometry.bone.y} r={geometry.bone_r} className={css.bone} />
        <path d={geometry.outline} className={css.outline} strokeWidth={small ? 0.03 : 0.012} />
        {leading && (
          <path
            d={geometry.regions.find((r) => r.head === leading.id)?.path}
            className={css.leading}
            strokeWidth={small ? 0.045 : 0.02}
          />
        )}
        {!small &&
          geometry.regions.map((r) => {
            const head = heads.get(r.head)
            const numbers = size >= 150 && head && head.value > 0
            return (
              <g key={r.head} className={css.label} pointerEvents="none">
                <text x={r.label.x} y={r.label.y + (numbers ? 0 : 0.025)} fontSize={0.07}>
                  {r.code}
                </text>
                {numbers && (
                  <text x={r.label.x} y={r.label.y + 0.07} fontSize={0.062}>
                    {decimals(head.value, places)}
                  </text>
                )}
              </g>
            )
          })}
      </svg>
      {over && !small && (
        <span className={css.tip} role="status">
          {over.name} <b>{decimals(over.value, places)}</b> {unit}
          {ask && <i>Click: what would train this?</i>}
        </span>
      )}
    </span>
  )
}
