import type { Dose } from '../../../prescription/rows'
import './prescription.css'

interface Props {
  dose: Dose
  minReserve: number
  canFail: boolean
  disabled?: boolean
  focus?: boolean
  set: (part: Partial<Dose>) => void
}

const reserves = [0, 1, 2, 3, 4, 5]
const mostBoxes = 12

/** reservesOf lists what is left set by set, whether the sets differ or not. */
export function reservesOf(dose: Dose): number[] {
  const list = dose.reserves ?? []
  return Array.from(
    { length: Math.max(1, Math.min(dose.sets, mostBoxes)) },
    (_, n) => list[Math.min(n, list.length - 1)] ?? dose.reserve,
  )
}

/** Efforts is how many reps are left after each set, where the sets differ. */
export function Efforts({ dose, minReserve, canFail, disabled, focus, set }: Props) {
  const list = reservesOf(dose)
  return (
    <span className="efforts">
      {list.map((left, n) => (
        <select
          key={n}
          aria-label={`Reps left after set ${n + 1}`}
          autoFocus={focus && n === 0}
          value={left}
          disabled={disabled}
          onChange={(e) => set({ reserves: list.map((x, i) => (i === n ? Number(e.target.value) : x)) })}
        >
          {reserves.map((r) => (
            <option key={r} value={r} disabled={r < minReserve || (r === 0 && !canFail)}>
              {r === 0 ? 'limit' : r}
            </option>
          ))}
        </select>
      ))}
    </span>
  )
}
