import { useEffect, useRef, useState } from 'react'
import type { Ribbon as Geometry } from '../api/client'
import { clock, follow } from './clock'
import { last } from './tempo'
import { decimals } from './heads'
import { clsx } from 'clsx'
import css from './ribbon.module.css'

interface Props {
  geometry: Geometry
  width: number
  height: number
  /** with axis, tick and a reading under the pointer */
  full?: boolean
  /** the clock's place stands in it, and it is scrubbed by */
  scrubbed?: boolean
}

/** Ribbon is the range from stretched to shortened; thick where it is hard, hollow where it is idle. */
export function Ribbon({ geometry, width, height, full = false, scrubbed = false }: Props) {
  const [read, setRead] = useState<number | null>(null)
  const reads = geometry.reads
  const head = useRef<HTMLSpanElement>(null)
  useEffect(() => (scrubbed && head.current ? follow(head.current) : undefined), [scrubbed])
  const at = read === null ? null : reads[read]
  return (
    <figure className={full ? clsx(css.ribbon, css.full) : css.ribbon} style={{ width }}>
      <svg
        viewBox="0 0 1 1"
        preserveAspectRatio="none"
        width={width}
        height={height}
        role="img"
        aria-label={geometry.text}
        onPointerMove={(e) => {
          if (!full || reads.length === 0) return
          const box = e.currentTarget.getBoundingClientRect()
          if (scrubbed && e.buttons & 1) clock.seek(((e.clientX - box.left) / box.width) * last)
          setRead(
            Math.min(
              reads.length - 1,
              Math.max(0, Math.round(((e.clientX - box.left) / box.width) * (reads.length - 1))),
            ),
          )
        }}
        onPointerLeave={() => setRead(null)}
      >
        {geometry.hollow.map((d) => (
          <path key={d} d={d} className={css.hollow} vectorEffect="non-scaling-stroke" />
        ))}
        {geometry.solid.map((d) => (
          <path key={d} d={d} className={css.solid} />
        ))}
        <line
          x1={geometry.tick}
          x2={geometry.tick}
          y1={0}
          y2={1}
          className={css.tick}
          vectorEffect="non-scaling-stroke"
        />
        {at && <line x1={at.x} x2={at.x} y1={0} y2={1} className={css.read} vectorEffect="non-scaling-stroke" />}
      </svg>
      {scrubbed && <span ref={head} className={css.head} style={{ height }} aria-hidden />}
      {full && (
        <>
          <div className={css.axis} aria-hidden>
            {geometry.marks.map((m) => (
              <span key={m.x} style={{ left: `${m.x * 100}%` }}>
                {m.elbow}°
              </span>
            ))}
          </div>
          <figcaption>
            <span>stretched</span>
            <span className="ribbon-says" aria-live="off">
              {at
                ? `${at.elbow}°: ${decimals(at.demand)} of what the muscles can do`
                : 'elbow bend; the mark is where it is hardest'}
            </span>
            <span>shortened</span>
          </figcaption>
        </>
      )}
    </figure>
  )
}
