import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { SlotDraft } from '../api/client'
import { queries } from '../api/queries'
import css from './prescription.module.css'

interface Props {
  client: string
  slot: SlotDraft
  /** puts another set-up in the slot's place */
  wear: (movement: string, settings: Record<string, number | string>) => void
}

/** CleanReps asks for the fit of a weight where no series tells it, and offers what the same weight suits better. */
export function CleanReps({ client, slot, wear }: Props) {
  const [reps, setReps] = useState<number | null>(null)
  const asked = JSON.stringify({
    movement: slot.movement,
    settings: slot.settings,
    client,
    room: true,
    clean_reps: reps,
  })
  const heard = useQuery({ ...queries.near(asked), enabled: reps !== null })
  return (
    <div>
      <label>
        Clean reps with the weight there is{' '}
        <input
          type="number"
          className={css.cleanReps}
          min={0}
          max={100}
          value={reps ?? ''}
          onChange={(e) => {
            const n = e.target.valueAsNumber
            setReps(Number.isInteger(n) && n >= 0 && n <= 100 ? n : null)
          }}
        />
      </label>
      {reps !== null && heard.data && (
        <div role="status">
          <p>{heard.data.words}</p>
          {heard.data.fit !== 'fits' &&
            heard.data.near.slice(0, 4).map((n) => (
              <p key={n.name}>
                <button type="button" className="link" onClick={() => wear(n.movement, n.settings)}>
                  {n.name}
                </button>
                {n.same_idea && ', nearly the same idea'}
              </p>
            ))}
          {heard.data.fit !== 'fits' && heard.data.near.length === 0 && (
            <p>Nothing else in the room suits this weight better.</p>
          )}
        </div>
      )}
    </div>
  )
}
