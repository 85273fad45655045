import type { Slice } from '../api/client'
import css from './slice.module.css'

/** Hatches are the patterns of the heads on the arm, in metres, or as many times finer: the same directions as on the slice. */
export function Hatches({ id, hatch, scale = 1 }: { id: string; hatch: Map<string, number>; scale?: number }) {
  return (
    <defs>
      {[...hatch].map(([head, angle]) => (
        <pattern
          key={head}
          id={`${id}${head}`}
          width={0.012}
          height={0.012}
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(${angle}) scale(${scale})`}
        >
          <line x1="0" y1={0.006} x2={0.012} y2={0.006} className={css.hatch} strokeWidth={0.003} />
        </pattern>
      ))}
    </defs>
  )
}

/** hatchOf is how each head is hatched on a slice, by its id: on the arm as there. */
export const hatchOf = (slice: Slice) => new Map(slice.regions.map((r) => [r.head, r.hatch]))

/** hatchShade is how opaque the hatch of a head is: none where nothing is filled. */
export const hatchShade = (level: number) => (level > 0 ? 0.15 + 0.4 * level : 0)
