import { useId, useMemo } from 'react'
import type { CloseUp as Geometry, Stills } from '../api/client'
import { clsx } from 'clsx'
import { Hatches, hatchShade } from './Hatches'
import { tone } from './heads'
import { Metres, Shapes, strokeOf, written } from './Shapes'
import { between, headIndex, pathOf, per, placesOf, startsOf } from './stills'
import css from './pose.module.css'

/** CloseUp is the arm by itself, from within: its heads filled, hatched and lettered as on the slice. */
export function CloseUp({
  of,
  hatch,
  className,
}: {
  of: Geometry
  /** how each head is hatched, by its id; absent: not at all */
  hatch?: Map<string, number>
  className?: string
}) {
  const id = useId()
  const bellies = of.shapes.filter((s) => s.class === 'belly')
  const letters = of.shapes.findIndex((s) => s.class === 'letter')
  return (
    <svg viewBox={of.box.join(' ')} className={clsx(css.within, className)} role="img" aria-label={of.text}>
      <Shapes of={of.shapes.slice(0, letters)} />
      {hatch && <Hatches id={id} hatch={hatch} />}
      {hatch &&
        bellies.map((s) =>
          s.level ? (
            <path
              key={s.head}
              d={s.path}
              fill={`url(#${id}${s.head!})`}
              opacity={hatchShade(s.level)}
              pointerEvents="none"
            />
          ) : null,
        )}
      <Shapes of={of.shapes.slice(letters)} />
    </svg>
  )
}

/** Still is one instant of a repetition, standing: what is told of it in words beside it. */
export function Still({ stills, at, className }: { stills: Stills; at: number; className?: string }) {
  const scale = per(stills)
  const places = useMemo(() => between(placesOf(stills), at, new Int32Array(stills.first.length)), [stills, at])
  const starts = useMemo(() => startsOf(stills), [stills])
  const box = (of: number[]) => of.map((x) => x * scale).join(' ')
  const part = (p: Stills['parts'][number], k: number) =>
    written[p.class] ? (
      <text key={k} x={places[starts[k]!]} y={places[starts[k]! + 1]} className={css[p.class]}>
        {written[p.class]!(p.head)}
      </text>
    ) : (
      <path
        key={k}
        d={pathOf(p, places, starts[k]!, scale)}
        className={css[p.class]}
        style={
          p.head
            ? { fill: tone(p.head, stills.tension[at]![headIndex[p.head]!]! / 100) }
            : strokeOf(p.width && p.width * scale, p.class)
        }
      />
    )
  return (
    <div className={clsx(css.pair, className)} style={{ '--per': scale } as React.CSSProperties}>
      <svg viewBox={box(stills.box)} className={css.pose} role="img" aria-label={stills.words[at]}>
        <Metres of={stills.behind} scale={scale} />
        {stills.parts.slice(0, stills.far).map(part)}
        <Metres of={stills.stays} scale={scale} />
        {stills.parts.slice(stills.far, stills.close).map((p, k) => part(p, k + stills.far))}
      </svg>
      <svg viewBox={box(stills.arm_box)} className={css.within} aria-hidden>
        {stills.parts.slice(stills.close).map((p, k) => part(p, k + stills.close))}
      </svg>
    </div>
  )
}
