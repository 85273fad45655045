import { useEffect, useId, useMemo, useRef, useSyncExternalStore } from 'react'
import type { Stills } from '../api/client'
import { clock, last } from './clock'
import { codes, tone } from './heads'
import { clsx } from 'clsx'
import { Hatches } from './Hatches'
import css from './pose.module.css'

/** useClock says whether figures play, and whether the clock runs. */
export function useClock() {
  const open = useSyncExternalStore(clock.watch, clock.isOpen)
  const running = useSyncExternalStore(clock.watch, clock.isRunning)
  return { open, running }
}

/** placesOf adds the changes up: the places of every picture. */
export function placesOf(s: Stills): Int32Array[] {
  const out = [Int32Array.from(s.first)]
  for (const step of s.steps) out.push(out[out.length - 1]!.map((x, k) => x + step[k]!))
  return out
}

/** startsOf is where the places of each part begin. */
function startsOf(s: Stills): number[] {
  const out = [0]
  for (const p of s.parts) out.push(out[out.length - 1]! + 2 * p.points)
  return out
}

/** drawn writes the path of a part between two pictures. */
export function drawn(
  a: Int32Array,
  b: Int32Array,
  t: number,
  unit: number,
  from: number,
  points: number,
  closed: boolean,
) {
  let d = ''
  for (let k = from; k < from + 2 * points; k += 2) {
    const x = (a[k]! + (b[k]! - a[k]!) * t) * unit
    const y = (a[k + 1]! + (b[k + 1]! - a[k + 1]!) * t) * unit
    d += `${k === from ? 'M' : 'L'}${x.toFixed(4)} ${y.toFixed(4)}`
  }
  return closed ? d + 'Z' : d
}

const disc = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`

/**
 * Alive is a set-up's repetition as the clock has it: the arm from within, filled by tension at that instant, slack
 * bellies dashed, both ends as ghosts. Nothing is rendered while it plays; the lines are moved.
 */
export function Alive({
  stills,
  hatch,
  className,
}: {
  stills: Stills
  /** how each head is hatched, by its id; absent: not at all */
  hatch?: Map<string, number>
  className?: string
}) {
  const id = useId()
  const svg = useRef<SVGSVGElement>(null)
  const places = useMemo(() => placesOf(stills), [stills])
  const starts = useMemo(() => startsOf(stills), [stills])
  const bellies = useMemo(
    () => stills.parts.flatMap((p, i) => (p.head ? [{ part: i, head: headIndex[p.head]! }] : [])),
    [stills],
  )

  useEffect(() => {
    const paths = [...(svg.current?.querySelectorAll<SVGPathElement>('[data-part]') ?? [])]
    const hatched = [...(svg.current?.querySelectorAll<SVGPathElement>('[data-hatched]') ?? [])]
    const labels = [...(svg.current?.querySelectorAll<SVGTextElement>('[data-label]') ?? [])]
    const shown: string[] = []
    const filled: string[] = []
    let frame = 0
    return clock.hear((place, running) => {
      frame++
      const i = Math.max(0, Math.min(last - 1, Math.floor(place)))
      const t = place - i
      const [a, b] = [places[i]!, places[i + 1]!]
      stills.parts.forEach((p, k) => {
        const from = starts[k]!
        const d = p.r
          ? disc(
              (a[from]! + (b[from]! - a[from]!) * t) * stills.unit,
              (a[from + 1]! + (b[from + 1]! - a[from + 1]!) * t) * stills.unit,
              p.r,
            )
          : drawn(a, b, t, stills.unit, from, p.points, p.closed ?? false)
        if (shown[k] === d) return // what stands still costs nothing
        shown[k] = d
        paths[k]?.setAttribute('d', d)
      })
      const near = Math.round(place)
      bellies.forEach(({ part, head }, n) => {
        const pull = (stills.tension[i]![head]! * (1 - t) + stills.tension[i + 1]![head]! * t) / 100
        const path = paths[part]
        if (!path) return
        // While it runs, fills and letters take turns: neither is seen to be a frame late.
        if (!running || frame % 2 === 0) {
          const fill = tone(headOf[head]!, Math.round(25 * pull) / 25)
          if (filled[n] !== fill) path.style.fill = filled[n] = fill
          path.classList.toggle(css.slack!, ((stills.slack[near]! >> head) & 1) === 1)
          const over = hatched[n]
          if (over) {
            const lines = running ? '' : shown[part]!
            if (over.getAttribute('d') !== lines) over.setAttribute('d', lines)
            if (!running) over.setAttribute('opacity', String(0.5 * pull))
          }
          if (running) return
        }
        const { points } = stills.parts[part]!
        let [x, y] = [0, 0]
        for (let k = starts[part]!; k < starts[part]! + 2 * points; k += 2) {
          x += a[k]! + (b[k]! - a[k]!) * t
          y += a[k + 1]! + (b[k + 1]! - a[k + 1]!) * t
        }
        labels[n]?.setAttribute(
          'transform',
          `translate(${(x / points) * stills.unit} ${(y / points) * stills.unit + 0.01})`,
        )
        labels[n]?.setAttribute('opacity', pull > 0.12 ? '1' : '0')
      })
    })
  }, [stills, places, starts, bellies, hatch])

  const [x, y, w, h] = stills.box
  const ghost = (at: number) => {
    const p = stills.parts[stills.far]! // the halo round the whole arm
    return drawn(places[at]!, places[at]!, 0, stills.unit, starts[stills.far]!, p.points, false)
  }
  return (
    <svg
      ref={svg}
      viewBox={`${x} ${y} ${w} ${h}`}
      className={clsx(css.pose, css.moves, className)}
      role="img"
      aria-label="The repetition, played"
    >
      <Shapes of={stills.behind} />
      {stills.parts.slice(0, stills.far).map((p, i) => (
        <path key={i} data-part className={css[p.class]} style={styleOf(p.width, p.class)} />
      ))}
      <Shapes of={stills.stays} />
      {[0, last].map((at) => (
        <path key={at} d={ghost(at)} className={css.end} />
      ))}
      {stills.parts.slice(stills.far).map((p, i) => (
        <path key={i} data-part className={css[p.class]} style={styleOf(p.width, p.class)} />
      ))}
      {hatch && <Hatches id={id} hatch={hatch} />}
      {hatch && bellies.map(({ head }) => <path key={head} data-hatched fill={`url(#${id}${headOf[head]!})`} />)}
      {bellies.map(({ head }) => (
        <text key={head} data-label className={css.code}>
          {codes[headOf[head]!]}
        </text>
      ))}
    </svg>
  )
}

/** Still is one instant of a repetition, standing: what is told of it in words beside it. */
export function Still({ stills, at, className }: { stills: Stills; at: number; className?: string }) {
  const places = useMemo(() => placesOf(stills)[at]!, [stills, at])
  const starts = useMemo(() => startsOf(stills), [stills])
  const [x, y, w, h] = stills.box
  const path = (k: number) => {
    const p = stills.parts[k]!
    const from = starts[k]!
    return p.r
      ? disc(places[from]! * stills.unit, places[from + 1]! * stills.unit, p.r)
      : drawn(places, places, 0, stills.unit, from, p.points, p.closed ?? false)
  }
  return (
    <svg viewBox={`${x} ${y} ${w} ${h}`} className={clsx(css.pose, className)} role="img" aria-label={stills.words[at]}>
      <Shapes of={stills.behind} />
      {stills.parts.slice(0, stills.far).map((p, k) => (
        <path key={k} d={path(k)} className={css[p.class]} style={styleOf(p.width, p.class)} />
      ))}
      <Shapes of={stills.stays} />
      {stills.parts.map((p, k) =>
        k < stills.far ? null : (
          <path
            key={k}
            d={path(k)}
            className={css[p.class]}
            style={
              p.head
                ? { fill: tone(p.head, stills.tension[at]![headIndex[p.head]!]! / 100) }
                : styleOf(p.width, p.class)
            }
          />
        ),
      )}
    </svg>
  )
}

/** Shapes are what does not move. */
function Shapes({ of }: { of: Stills['stays'] }) {
  return of.map((s, i) => <path key={i} d={s.path} className={css[s.class]} style={styleOf(s.width, s.class)} />)
}

/** styleOf is how a line or an area is drawn. */
const styleOf = (width: number | undefined, name: string) =>
  width
    ? {
        strokeWidth: width,
        fill: 'none',
        strokeLinecap: name.endsWith('bell') ? ('butt' as const) : ('round' as const),
      }
    : { stroke: 'none' }

const headOf = [
  'biceps_long',
  'biceps_short',
  'brachialis',
  'brachioradialis',
  'triceps_long',
  'triceps_lateral',
  'triceps_medial',
]
const headIndex = Object.fromEntries(headOf.map((h, i) => [h, i]))
