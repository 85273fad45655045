import type { Studio } from '../api/client'
import css from './preferences.module.css'

interface Props {
  axes: Studio['axes']
  /** the choices that are made here, by axis */
  chosen: Record<string, string>
  /** whose choice holds where none is made here, and which */
  inherited: (axis: string) => { whose: string; choice: string }
  locked: boolean
  choose: (next: Record<string, string>) => void
}

/** Preferences is how somebody likes to train, a sentence an axis; the reason of what holds stands beside it. */
export function Preferences({ axes, chosen, inherited, locked, choose }: Props) {
  return (
    <ul className={css.axes}>
      {axes.map((a) => {
        const from = inherited(a.id)
        const is = chosen[a.id] ?? from.choice
        const holds = a.choices.find((c) => c.id === is) ?? a.choices[0]!
        const named = (id: string) => a.choices.find((c) => c.id === id)?.words ?? ''
        return (
          <li key={a.id} className={chosen[a.id] ? css.own : undefined}>
            <label>
              <b>{a.label}</b>{' '}
              <select
                aria-label={a.label}
                value={chosen[a.id] ?? ''}
                disabled={locked}
                title={`Acts on ${a.acts}`}
                onChange={(e) => {
                  const next = { ...chosen }
                  if (e.target.value) next[a.id] = e.target.value
                  else delete next[a.id]
                  choose(next)
                }}
              >
                <option value="">{`${from.whose}: ${named(from.choice)}`}</option>
                {a.choices.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.words}
                  </option>
                ))}
              </select>
            </label>{' '}
            <small>{holds.why}</small>
          </li>
        )
      })}
    </ul>
  )
}
