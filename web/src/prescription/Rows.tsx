import type { SlotView } from '../api/client'
import { useKeys } from '../app/keys'
import type { Arrange } from './useArrange'
import { clsx } from 'clsx'
import css from './prescription.module.css'

interface Props {
  view: SlotView
  /** the row under the hand */
  at: number
  choose: (row: number) => void
  arrange?: Arrange
  faults: { field: string; reason: string }[]
}

/**
 * Rows are a slot's rows, one a line where there are several, and what can be done to them: the last set by itself or by a
 * method, a back-off, a row a set, two as one, another order. Whoever writes plain sets sees one row and a line of words.
 */
export function Rows({ view, at, choose, arrange, faults }: Props) {
  const last = view.rows.length - 1
  const sets = view.rows[at]?.sets ?? 0
  const slot = view.id
  const drops = view.methods.find((m) => m.id === 'drops' && m.refused === '')
  const go = (row: number) => choose(Math.max(0, Math.min(last, row)))
  const keys = {
    s: { does: 'the last set as a row of its own', run: () => sets > 1 && arrange?.({ do: 'split', slot, row: at }) },
    d: { does: 'the last set drops', run: () => drops && arrange?.({ do: 'last_method', slot, method: drops.id }) },
    b: { does: 'a back-off row', run: () => arrange?.({ do: 'back_off', slot }) },
    e: { does: 'a row for each set', run: () => arrange?.({ do: 'each', slot }) },
    m: { does: 'this row as one with the row above', run: () => at > 0 && arrange?.({ do: 'merge', slot, row: at }) },
    ',': { does: 'the row above', run: () => go(at - 1) },
    '.': { does: 'the row below', run: () => go(at + 1) },
  }
  useKeys(arrange ? keys : {})
  const press = (words: string, key: keyof typeof keys) => (
    <button type="button" className="link" title={`${keys[key].does} (${key})`} onClick={keys[key].run}>
      {words}
    </button>
  )
  return (
    <div className={css.rows}>
      {last > 0 && (
        <ol aria-label="Rows">
          {view.row_words.map((r, k) => (
            <li key={r.id} className={k === at ? clsx(css.row, css.here) : css.row}>
              <button
                type="button"
                className={css.rowFace}
                aria-current={k === at}
                onClick={() => choose(k)}
                onKeyDown={(e) => {
                  if (!arrange) return
                  const by = e.key === 'ArrowUp' ? -1 : e.key === 'ArrowDown' ? 1 : 0
                  if (e.altKey && by !== 0) {
                    e.preventDefault()
                    arrange({ do: 'move', slot, row: k, by })
                    go(k + by)
                  } else if (e.key === 'Delete') {
                    e.preventDefault()
                    arrange({ do: 'remove', slot, row: k })
                    go(Math.min(k, last - 1))
                  }
                }}
              >
                <b>{r.done}</b> · {r.load}
                {r.set_up && ` · ${r.set_up}`}
              </button>
              {arrange && (
                <span className={css.rowTools}>
                  <button
                    type="button"
                    aria-label={`Row ${k + 1} up`}
                    disabled={k === 0}
                    onClick={() => arrange({ do: 'move', slot, row: k, by: -1 })}
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    aria-label={`Row ${k + 1} down`}
                    disabled={k === last}
                    onClick={() => arrange({ do: 'move', slot, row: k, by: 1 })}
                  >
                    ↓
                  </button>
                  <button
                    type="button"
                    aria-label={`Row ${k + 1} once more`}
                    onClick={() => arrange({ do: 'copy', slot, row: k })}
                  >
                    +
                  </button>
                  <button
                    type="button"
                    aria-label={`Remove row ${k + 1}`}
                    onClick={() => {
                      arrange({ do: 'remove', slot, row: k })
                      go(Math.min(at, last - 1))
                    }}
                  >
                    ×
                  </button>
                </span>
              )}
              {faults
                .filter((f) => f.field.startsWith(`rows[${k}].`))
                .map((f) => (
                  <span key={f.field} className="fault" role="alert">
                    {f.reason}
                  </span>
                ))}
            </li>
          ))}
        </ol>
      )}
      {arrange && (
        <p className={css.rowsDo}>
          {sets > 1 && press('last set by itself', 's')}
          {drops && press('last set drops', 'd')}
          {press('back off', 'b')}
          {view.rows.some((r) => r.sets > 1) && press('a row for each set', 'e')}
          {at > 0 && press('one with the row above', 'm')}
          {last > 0 && (
            <button type="button" className="link" onClick={() => arrange({ do: 'alike', slot })}>
              all sets like the first
            </button>
          )}
        </p>
      )}
    </div>
  )
}
