import { useRef, useState } from 'react'
import type { Handle, Pose } from '../api/client'
import { clsx } from 'clsx'
import { Shapes } from './Shapes'
import css from './pose.module.css'

interface Props {
  pose: Pose
  /** absent: only looked at */
  onTurn?: (key: string, value: number, grabbing: boolean) => void
  onGrab?: (key: string | null) => void
  words?: (key: string) => string
  className?: string
}

/** nearest finds the value whose place on the track is nearest to a point. */
export function nearest(handle: Handle, x: number, y: number): number {
  let best = handle.track[0]
  let least = Infinity
  for (const stop of handle.track) {
    const d = (stop.at.x - x) ** 2 + (stop.at.y - y) ** 2
    if (d < least) {
      least = d
      best = stop
    }
  }
  return best!.value
}

/** along returns the value some stops up or down a handle's track. */
export function along(handle: Handle, from: number, steps: number): number {
  const values = handle.track.map((s) => s.value)
  const here = values.reduce((best, v, i) => (Math.abs(v - from) < Math.abs(values[best]! - from) ? i : best), 0)
  return values[Math.min(values.length - 1, Math.max(0, here + steps))]!
}

const arrows: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }

/**
 * PoseFigure is the side view of a set-up; its handles can be dragged, or nudged with the arrow keys (Shift: three
 * steps).
 */
export function PoseFigure({ pose, onTurn, onGrab, words, className }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  const [held, setHeld] = useState<string | null>(null)
  const [box, setBox] = useState(pose.box)
  // While a handle is held the picture stands still, whatever the new box is.
  if (held === null && box !== pose.box) setBox(pose.box)
  const [x, y, w, h] = box
  const valueOf = (handle: Handle) =>
    handle.track.reduce((a, b) => (distance(b.at, handle.at) < distance(a.at, handle.at) ? b : a)).value

  const place = (e: React.PointerEvent) => {
    const matrix = svg.current?.getScreenCTM()
    if (!matrix) return null
    return new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse())
  }

  return (
    <svg
      ref={svg}
      viewBox={`${x} ${y} ${w} ${h}`}
      className={clsx(css.pose, className)}
      role={onTurn ? 'group' : 'img'}
      aria-label={pose.text}
    >
      <Shapes of={pose.shapes} />
      <path d={pose.path} className={css.way} />
      {pose.hardest && (
        <circle cx={pose.hardest.x} cy={pose.hardest.y} r={0.022} className={css.hardest}>
          <title>hardest here</title>
        </circle>
      )}
      {onTurn &&
        pose.handles.map((handle) => {
          const value = valueOf(handle)
          return (
            <g key={handle.key}>
              {held === handle.key &&
                handle.track.map((s) => (
                  <circle key={s.value} cx={s.at.x} cy={s.at.y} r={0.008} className={css.stop} />
                ))}
              <circle
                cx={handle.at.x}
                cy={handle.at.y}
                r={0.038}
                className={held === handle.key ? clsx(css.handle, css.held) : css.handle}
                role="slider"
                tabIndex={0}
                data-key={handle.key}
                aria-label={handle.label}
                aria-valuenow={value}
                aria-valuemin={handle.track[0]!.value}
                aria-valuemax={handle.track[handle.track.length - 1]!.value}
                aria-valuetext={words?.(handle.key)}
                onPointerDown={(e) => {
                  e.preventDefault()
                  e.currentTarget.setPointerCapture(e.pointerId)
                  e.currentTarget.focus()
                  setHeld(handle.key)
                  onGrab?.(handle.key)
                }}
                onPointerMove={(e) => {
                  if (held !== handle.key) return
                  const p = place(e)
                  if (!p) return
                  const v = nearest(handle, p.x, p.y)
                  if (v !== value) onTurn(handle.key, v, true)
                }}
                onPointerUp={() => {
                  setHeld(null)
                  onGrab?.(null)
                }}
                onPointerCancel={() => {
                  setHeld(null)
                  onGrab?.(null)
                }}
                onKeyDown={(e) => {
                  const step = arrows[e.key]
                  if (!step) return
                  e.preventDefault()
                  onTurn(handle.key, along(handle, value, step * (e.shiftKey ? 3 : 1)), false)
                }}
              >
                <title>{`${handle.label}: ${words?.(handle.key) ?? value}`}</title>
              </circle>
            </g>
          )
        })}
    </svg>
  )
}

function distance(a: { x: number; y: number }, b: { x: number; y: number }): number {
  return Math.hypot(a.x - b.x, a.y - b.y)
}
