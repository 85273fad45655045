import { useEffect, useId, useMemo, useRef, useSyncExternalStore, type CSSProperties } from 'react'
import type { Stills } from '../api/client'
import { begin } from './canvas'
import { clock } from './clock'
import { last } from './tempo'
import { tone } from './heads'
import { clsx } from 'clsx'
import { Hatches, hatchShade } from './Hatches'
import { Metres, strokeOf, written } from './Shapes'
import { between, headIndex, isSlack, headOf, pathOf, per, placesOf, startsOf } from './stills'
import css from './pose.module.css'

/** useClock says whether figures play, and whether the clock runs. */
export function useClock() {
  const open = useSyncExternalStore(clock.watch, clock.isOpen)
  const running = useSyncExternalStore(clock.watch, clock.isRunning)
  return { open, running }
}

/**
 * Alive is a set-up's repetition as the clock has it: the person, both ends as ghosts, and beside it the arm from
 * within, filled by tension at that instant, slack bellies dashed. It is drawn where it stands, and painted on a canvas
 * over the drawing while it runs.
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
  const frame = useRef<HTMLDivElement>(null)
  const places = useMemo(() => placesOf(stills), [stills])
  const starts = useMemo(() => startsOf(stills), [stills])
  const bellies = useMemo(
    () => stills.parts.flatMap((p, i) => (p.class === 'belly' ? [{ part: i, head: headIndex[p.head!]! }] : [])),
    [stills],
  )
  const scale = per(stills)

  useEffect(() => {
    const all = <T extends Element>(what: string) => [...(frame.current?.querySelectorAll<T>(`[data-${what}]`) ?? [])]
    const parts = all<SVGElement>('part')
    const hatched = all<SVGPathElement>('hatched')
    const now = new Int32Array(stills.first.length)
    let away: (() => void) | undefined
    const draw = (place: number) => {
      const at = Math.round(place)
      between(places, place, now)
      stills.parts.forEach((p, k) => {
        const here = starts[k]!
        if (written[p.class]) parts[k]?.setAttribute('transform', `translate(${now[here]} ${now[here + 1]})`)
        else parts[k]?.setAttribute('d', pathOf(p, now, here, scale))
      })
      bellies.forEach(({ part, head }, n) => {
        const pull = stills.tension[at]![head]! / 100
        if (parts[part]) parts[part].style.fill = tone(headOf[head]!, pull)
        parts[part]?.classList.toggle(css.slack!, isSlack(stills, at, head))
        hatched[n]?.setAttribute('d', pathOf(stills.parts[part]!, now, starts[part]!, scale))
        hatched[n]?.setAttribute('opacity', String(hatchShade(pull)))
      })
    }
    const stop = clock.hear((place, running) => {
      if (!running || !away) draw(place)
      if (running) away ??= frame.current ? begin(frame.current, stills) : undefined
      else {
        away?.()
        away = undefined // the window, or the colours, may be others when it runs again
      }
    })
    const anew = () => {
      if (!away || !frame.current) return
      away()
      away = begin(frame.current, stills)
    }
    window.addEventListener('resize', anew)
    return () => {
      window.removeEventListener('resize', anew)
      stop()
      away?.()
    }
  }, [stills, places, starts, bellies, scale, hatch])

  const part = (p: Stills['parts'][number], i: number) =>
    written[p.class] ? (
      <text key={i} data-part className={css[p.class]}>
        {written[p.class]!(p.head)}
      </text>
    ) : (
      <path key={i} data-part className={css[p.class]} style={strokeOf(p.width && p.width * scale, p.class)} />
    )
  const letters = stills.parts.findIndex((p) => p.class === 'letter')
  const ghost = (at: number) => {
    const k = stills.parts.findIndex((p) => p.class === 'halo') // round the whole arm
    return pathOf(stills.parts[k]!, between(places, at, new Int32Array(stills.first.length)), starts[k]!, scale)
  }
  const box = (of: number[]) => of.map((x) => Math.round(x * scale)).join(' ')
  return (
    <div ref={frame} className={clsx(css.pair, className)} style={{ '--per': scale } as CSSProperties}>
      <svg viewBox={box(stills.box)} data-still className={css.pose} role="img" aria-label="The repetition, played">
        <g data-stays>
          <Metres of={stills.behind} scale={scale} />
        </g>
        {stills.parts.slice(0, stills.far).map(part)}
        <g data-stays>
          <Metres of={stills.stays} scale={scale} />
          {[0, last].map((at) => (
            <path key={at} d={ghost(at)} className={css.end} />
          ))}
        </g>
        {stills.parts.slice(stills.far, stills.close).map((p, i) => part(p, i + stills.far))}
      </svg>
      <svg viewBox={box(stills.arm_box)} data-still className={css.within} aria-hidden>
        {stills.parts.slice(stills.close, letters).map((p, i) => part(p, i + stills.close))}
        {hatch && <Hatches id={id} hatch={hatch} scale={scale} />}
        {hatch &&
          bellies.map(({ head }) => (
            <path key={head} data-hatched fill={`url(#${id}${headOf[head]!})`} stroke="none" />
          ))}
        {stills.parts.slice(letters).map((p, i) => part(p, i + letters))}
      </svg>
    </div>
  )
}
