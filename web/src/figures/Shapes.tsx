import type { Pose } from '../api/client'
import { codes, tone } from './heads'
import css from './pose.module.css'

/** strokeOf is how a line or an area is drawn. */
export const strokeOf = (width: number | undefined, name: string) =>
  width
    ? {
        strokeWidth: width,
        fill: 'none',
        strokeLinecap: name.endsWith('bell') ? ('butt' as const) : ('round' as const),
      }
    : name === 'belly'
      ? undefined
      : { stroke: 'none' }

/** written is what stands at a place of the picture, instead of a line. */
export const written: Record<string, (head?: string) => string> = {
  letter: (head) => codes[head!]!,
  'down-word': () => 'down',
}

/** Shapes are lines, areas and letters as the core draws them; a belly is filled as far as it says. */
export function Shapes({ of }: { of: Pose['shapes'] }) {
  return of.map((s, i) =>
    written[s.class] ? (
      <Written key={i} name={s.class} head={s.head} at={s.path} pale={s.head !== undefined && !s.level} />
    ) : (
      <path
        key={i}
        d={s.path}
        className={s.slack ? `${css[s.class]} ${css.slack}` : css[s.class]}
        style={s.head ? { fill: tone(s.head, s.level ?? 0) } : strokeOf(s.width, s.class)}
      />
    ),
  )
}

/** Metres is what does not move, drawn in metres. */
export function Metres({ of, scale }: { of: Pose['shapes']; scale: number }) {
  return (
    <g transform={`scale(${scale})`} className={css.metres}>
      <Shapes of={of} />
    </g>
  )
}

/** Written is a word or letters at a place: that which its path begins at. */
function Written({ name, head, at, pale }: { name: string; head?: string; at: string; pale: boolean }) {
  const [x, y] = at.slice(1).split(' ')
  return (
    <text x={x} y={y} className={css[name]} opacity={pale ? 0.6 : undefined}>
      {written[name]!(head)}
    </text>
  )
}
