import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { LibraryEntry } from '../../api/client'
import { decimals, headColour } from '../../figures/heads'
import { clsx } from 'clsx'
import css from './library.module.css'

interface Props {
  entries: LibraryEntry[]
  head: string
  name: string
  to: (e: LibraryEntry) => string
}

const w = 900
const h = 560
const pad = { left: 62, right: 18, top: 16, bottom: 44 }

interface Box {
  x0: number
  x1: number
  y0: number
  y1: number
}

/**
 * SetUpMap puts every set-up at its bias for a head (across) and the head's length (up): near neighbours are one idea.
 */
export function SetUpMap({ entries, head, name, to }: Props) {
  const navigate = useNavigate()
  const [over, setOver] = useState<string | null>(null)
  const dots = entries.flatMap((e) => {
    const v = e.heads.find((x) => x.id === head)
    return v && v.length !== undefined ? [{ e, bias: v.bias, length: v.length }] : []
  })
  if (dots.length === 0)
    return <p className="hint">None of these is computed for {name}, so there is nothing to place.</p>
  const span = (values: number[], step: number) => [
    Math.floor(Math.min(...values) / step) * step,
    Math.ceil(Math.max(...values) / step) * step,
  ]
  const [x0, x1] = span(
    dots.map((d) => d.bias),
    0.1,
  )
  const [y0, y1] = span(
    dots.map((d) => d.length),
    0.1,
  )
  const x = (v: number) => pad.left + ((v - x0!) / (x1! - x0! || 1)) * (w - pad.left - pad.right)
  const y = (v: number) => h - pad.bottom - ((v - y0!) / (y1! - y0! || 1)) * (h - pad.top - pad.bottom)
  const ticks = (a: number, b: number) => Array.from({ length: Math.round((b - a) / 0.1) + 1 }, (_, i) => a + i * 0.1)
  const shown = [...dots].sort((a, b) => b.bias - a.bias)
  // A name is written where it covers neither another name nor a dot.
  const taken: Box[] = dots.map((d) => ({
    x0: x(d.bias) - 7,
    x1: x(d.bias) + 7,
    y0: y(d.length) - 7,
    y1: y(d.length) + 7,
  }))
  const names = new Map<string, Box>()
  for (const { e, bias, length } of shown) {
    const wide = short(e.name).length * 6.1
    for (const x0 of [x(bias) + 9, x(bias) - 9 - wide]) {
      const box = { x0, x1: x0 + wide, y0: y(length) - 6, y1: y(length) + 6 }
      if (
        box.x0 > pad.left &&
        box.x1 < w - 4 &&
        taken.every((t) => t.x1 < box.x0 || t.x0 > box.x1 || t.y1 < box.y0 || t.y0 > box.y1)
      ) {
        taken.push(box)
        names.set(e.key, box)
        break
      }
    }
  }
  return (
    <figure className={css.map}>
      <svg
        viewBox={`0 0 ${w} ${h}`}
        role="group"
        aria-label={`Map of ${dots.length} set-ups: bias for the ${name} across, its length upward`}
      >
        {ticks(x0!, x1!).map((t) => (
          <g key={`x${t}`}>
            <line
              x1={x(t)}
              x2={x(t)}
              y1={pad.top}
              y2={h - pad.bottom}
              className={Math.abs(t - 1) < 0.01 ? css.mapOne : css.mapGrid}
            />
            <text x={x(t)} y={h - pad.bottom + 16} className={css.mapTick}>
              {t.toFixed(1)}
            </text>
          </g>
        ))}
        <text x={(w + pad.left) / 2} y={h - 8} className={css.mapTitle}>
          bias for the {name}; 1.0 is the plain movement
        </text>
        <text transform={`translate(16 ${h / 2}) rotate(-90)`} className={css.mapTitle}>
          shorter ← length in its reach → longer
        </text>
        {shown.map(({ e, bias, length }) => {
          const at = { x: x(bias), y: y(length) }
          const box = names.get(e.key)
          const left = box ? box.x0 < at.x : at.x > w - 240
          return (
            <g
              key={e.key}
              className={over === e.key ? clsx(css.mapDot, css.over) : css.mapDot}
              tabIndex={0}
              role="link"
              aria-label={`${e.name}: bias ${decimals(bias)}, place in its reach ${decimals(length)}`}
              onPointerEnter={() => setOver(e.key)}
              onPointerLeave={() => setOver(null)}
              onFocus={() => setOver(e.key)}
              onBlur={() => setOver(null)}
              onClick={() => navigate(to(e))}
              onKeyDown={(k) => k.key === 'Enter' && navigate(to(e))}
            >
              <circle cx={at.x} cy={at.y} r={over === e.key ? 8 : 6} fill={headColour[head]} />
              {(box || over === e.key) && (
                <text x={at.x + (left ? -10 : 10)} y={at.y + 4} textAnchor={left ? 'end' : 'start'}>
                  {short(e.name)}
                </text>
              )}
            </g>
          )
        })}
      </svg>
      <figcaption>
        Dots that touch are nearly the same idea for this head. Point at one for its name, click it to try it on.
      </figcaption>
    </figure>
  )
}

/** short is a name without its hand, for the map. */
function short(name: string): string {
  return name.split(', ').slice(0, 2).join(', ')
}
