import type { RefObject } from 'react'
import type { LedgerHead } from '../../api/client'
import { tenths } from '../../figures/heads'
import css from './board.module.css'

/** Reach keeps the week's ledger in sight on a phone, where it stands below the board; pressed, it leads there. */
export function Reach({ heads, to }: { heads: LedgerHead[]; to: RefObject<HTMLElement | null> }) {
  return (
    <button type="button" className={css.reach} onClick={() => to.current?.scrollIntoView()}>
      <span className="only-read">What the week comes to: </span>
      {heads.map((h) => (
        <span key={h.id} className={h.short ? css.reachShort : undefined}>
          {h.code} <b>{tenths(h.total)}</b>
        </span>
      ))}
    </button>
  )
}
