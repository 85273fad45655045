import type { ReactNode } from 'react'
import type { Row, SlotView } from '../../api/client'
import { loadOf, loadsOf, loadValue } from '../../prescription/session'
import { Tempo } from '../../prescription/Tempo'
import { NumberBox } from './Inline'
import css from './editing.module.css'

/** Lines is one line a row, told apart where there are several; the first has the focus. */
export function Lines({ rows, line }: { rows: Row[]; line: (row: Row, at: number, name: string) => ReactNode }) {
  return rows.map((r, k) => (
    <span key={r.id} className={rows.length > 1 ? css.inlineRow : undefined}>
      {line(r, k, rows.length > 1 ? ` in row ${k + 1}` : '')}
    </span>
  ))
}

interface Props {
  row: Row
  at: number
  /** " in row 2" where there are several */
  name: string
  view: SlotView | undefined
  set: (part: Partial<Row>) => void
}

export function SetsOf({ row, at, name, set }: Props) {
  const held = !!row.seconds_low || !!row.seconds_high
  const [low, high] = held ? (['seconds_low', 'seconds_high'] as const) : (['reps_low', 'reps_high'] as const)
  const of = held ? 'seconds' : 'reps'
  return (
    <>
      <NumberBox
        focus={at === 0}
        label={`Sets${name}`}
        value={row.sets}
        set={(sets) => set({ sets: Math.round(sets) })}
      />{' '}
      × <NumberBox label={`Fewest ${of}${name}`} value={row[low] ?? 0} set={(v) => set({ [low]: Math.round(v) })} /> –{' '}
      <NumberBox label={`Most ${of}${name}`} value={row[high] ?? 0} set={(v) => set({ [high]: Math.round(v) })} />
      {held && ' s'}
    </>
  )
}

export function LoadOf({ row, at, name, view, set }: Props) {
  return (
    <select
      aria-label={`Load${name}`}
      autoFocus={at === 0}
      value={loadValue(row, at)}
      onChange={(e) => set({ load: loadOf(e.target.value) })}
    >
      {loadsOf(view, at).map((l) => (
        <option key={l.label} value={l.value}>
          {l.label}
        </option>
      ))}
    </select>
  )
}

export function ReserveOf({ row, at, name, view, set }: Props) {
  return (
    <select
      aria-label={`Reps left in reserve${name}`}
      autoFocus={at === 0}
      value={row.reserve}
      onChange={(e) => set({ reserve: Number(e.target.value) })}
    >
      {(view?.reserves ?? []).map((r) => (
        <option key={r.value} value={r.value} disabled={r.refused !== ''} title={r.refused}>
          {r.value === 0 ? r.words : `${r.words} left`}
        </option>
      ))}
    </select>
  )
}

export function TempoOf({ row, at, set }: Props) {
  return <Tempo tempo={row.tempo} focus={at === 0} set={(tempo) => set({ tempo })} />
}
