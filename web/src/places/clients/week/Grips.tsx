import { useState } from 'react'
import type { SlotDraft } from '../../../api/client'
import { keyOf, type Dose, type Hand } from '../../../prescription/rows'
import { useProposal } from './useProposal'

interface Props {
  client: string
  slot: SlotDraft
  dose: Dose
  mayPlan: boolean
  fault?: string
  setSlot: (part: Partial<SlotDraft>) => void
  setDose: (field: string, dose: Dose) => void
}

const hand = ({ movement, settings }: Hand): Hand => ({
  ...(movement ? { movement } : {}),
  ...(settings ? { settings } : {}),
})

/** Grips is how the same weight is held set by set, from the weaker grip to the stronger, and which arm begins where they take turns. */
export function Grips({ client, slot, dose, mayPlan, fault, setSlot, setDose }: Props) {
  const p = useProposal(client, slot, dose)
  const [open, setOpen] = useState(false) // the hand is asked set by set, though it does not differ yet
  const grips = dose.hands ?? (open ? [{}] : [])
  const ways = p?.grips ?? []
  const turns = p?.takes_turns ?? false
  const take = (n: number, key: string) => {
    const chosen = ways.find((w) => keyOf(w) === key)
    if (!chosen) return
    setDose('hands', {
      ...dose,
      hands: Array.from({ length: dose.sets }, (_, i) =>
        i === n ? hand(chosen) : (grips[Math.min(i, grips.length - 1)] ?? {}),
      ),
    })
  }
  const may = mayPlan && dose.sets > 1 && ways.length > 1
  if (grips.length === 0 && !turns && !may && !fault) return null
  return (
    <div className="grips">
      {turns && (
        <p>
          <label>
            Begins:{' '}
            <select
              value={slot.starts ?? ''}
              disabled={!mayPlan}
              onChange={(e) => setSlot({ starts: e.target.value as '' | 'left' | 'right' })}
            >
              <option value="">the arms take turns</option>
              <option value="left">left arm</option>
              <option value="right">right arm</option>
            </select>
          </label>{' '}
          {p?.starts && slot.starts !== p.starts && (
            <>
              {p.starts_why}{' '}
              {mayPlan && (
                <button type="button" className="link" onClick={() => setSlot({ starts: p.starts })}>
                  The {p.starts} begins
                </button>
              )}
            </>
          )}
        </p>
      )}
      {grips.length > 0 && (
        <ol className="grips-sets" aria-label="Grip set by set">
          {Array.from({ length: dose.sets }, (_, n) => {
            const now = grips[Math.min(n, grips.length - 1)]
            return (
              <li key={n}>
                <label>
                  Set {n + 1}{' '}
                  <select value={keyOf(now)} disabled={!mayPlan} onChange={(e) => take(n, e.target.value)}>
                    {!ways.some((w) => keyOf(w) === keyOf(now)) && <option value={keyOf(now)}>as it is</option>}
                    {ways.map((w) => (
                      <option key={keyOf(w)} value={keyOf(w)}>
                        {w.words}, {w.part.toFixed(2)} of the strongest
                      </option>
                    ))}
                  </select>
                </label>
              </li>
            )
          })}
        </ol>
      )}
      {may && (
        <p>
          {grips.length === 0 ? (
            <button
              type="button"
              className="link"
              title="One weight throughout: the weaker grip while fresh, the stronger one carries on"
              onClick={() =>
                p!.grip_plan.length > 0 ? setDose('hands', { ...dose, hands: p!.grip_plan }) : setOpen(true)
              }
            >
              A grip for each set, from weak to strong
            </button>
          ) : (
            <button
              type="button"
              className="link"
              onClick={() => {
                setOpen(false)
                setDose('hands', { ...dose, hands: undefined })
              }}
            >
              One grip for all sets
            </button>
          )}{' '}
          {grips.length > 0 && (
            <span className="caveat">
              {ways[0]?.from_log
                ? 'Strength by the client’s own series.'
                : 'Strength by the model and the usual hand factors; the client’s own series take over once every grip has one.'}
            </span>
          )}
        </p>
      )}
      {fault && (
        <span className="fault" role="alert">
          {fault}
        </span>
      )}
    </div>
  )
}
