import type { Proposal, SlotDraft, SlotView } from '../api/client'
import type { Arrange } from './useArrange'
import css from './prescription.module.css'

interface Props {
  slot: SlotDraft
  view: SlotView
  proposal: Proposal | undefined
  mayPlan: boolean
  fault?: string
  setSlot: (part: Partial<SlotDraft>) => void
  arrange: Arrange
}

/**
 * Hands is how the same weight is held set by set, from the weaker grip to the stronger, and which arm begins where
 * they take turns.
 */
export function Hands({ slot, view, proposal: p, mayPlan, fault, setSlot, arrange }: Props) {
  const ways = p?.grips ?? []
  const turns = p?.takes_turns ?? false
  const differ = view.rows.some((r) => r.movement || (r.settings && Object.keys(r.settings).length > 0))
  const sets = view.rows.reduce((n, r) => n + r.sets, 0)
  const may = mayPlan && sets > 1 && ways.length > 1
  if (!differ && !turns && !may && !fault) return null
  return (
    <div className={css.grips}>
      {turns && (
        <p>
          <label>
            Begins:{' '}
            <select
              value={slot.starts ?? ''}
              disabled={!mayPlan}
              onChange={(e) => setSlot({ starts: e.target.value as SlotDraft['starts'] })}
            >
              <option value="">the arms take turns</option>
              <option value="left">left arm</option>
              <option value="right">right arm</option>
              <option value="left_only">left arm alone</option>
              <option value="right_only">right arm alone</option>
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
      {may && (
        <p>
          {differ ? (
            <button type="button" className="link" onClick={() => arrange({ do: 'hands', slot: slot.id, hands: [{}] })}>
              One grip for all sets
            </button>
          ) : (
            <button
              type="button"
              className="link"
              title="One weight throughout: the weaker grip while fresh, the stronger one carries on"
              onClick={() =>
                p && p.grip_plan.length > 0
                  ? arrange({ do: 'hands', slot: slot.id, hands: p.grip_plan })
                  : arrange({ do: 'each', slot: slot.id })
              }
            >
              A grip for each set, from weak to strong
            </button>
          )}{' '}
          {differ && (
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
