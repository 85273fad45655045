import type { ReactNode } from 'react'
import type { SheetView } from '../../api/client'
import css from './sheet.module.css'

export type SheetSlot = SheetView['slots'][number]

/** Parts are the pieces of a sheet that a coach changes where they are read; plain ones are only read. */
export interface Parts {
  session: (words: string) => ReactNode
  warmUp: (words: string) => ReactNode
  sets: (i: number, words: string) => ReactNode
  load: (i: number, words: string) => ReactNode
  effort: (i: number, words: string) => ReactNode
  rest: (i: number, words: string) => ReactNode
  tempo: (i: number, words: string) => ReactNode
  cues: (i: number, cues: string[]) => ReactNode
}

const words = (_: number, w: string): ReactNode => w

export const plain: Parts = {
  session: (w) => w,
  warmUp: (w) => w,
  sets: words,
  load: words,
  effort: words,
  rest: words,
  tempo: words,
  cues: (_, cues) =>
    cues.length > 0 && (
      <ul className={css.cues}>
        {cues.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    ),
}
