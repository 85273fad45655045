import { useState } from 'react'
import type { FieldFault, Row, SlotDraft, SlotView } from '../api/client'
import { CueReason } from './CueReason'
import { CleanReps } from './CleanReps'
import { Cues } from './Cues'
import { Hands } from './Hands'
import { Proposed } from './Proposed'
import { RowFields } from './RowFields'
import { Rows } from './Rows'
import { faultOf, restOf, rowsOf, type Session } from './session'
import type { Arrange } from './useArrange'
import { useProposal } from './useProposal'
import css from './prescription.module.css'

interface Props {
  client: string
  session: Session
  slot: SlotDraft
  view: SlotView
  /** in the slot's own paths; asks: a reason answers it */
  faults: (FieldFault & { asks?: boolean })[]
  mayPlan: boolean
  /** it may be planned, but is locked */
  held?: boolean
  setRow: (label: string, row: number, part: Partial<Row>) => void
  setRest: (row: number, seconds: number) => void
  setCues: (cues: string[]) => void
  setSlot: (part: Partial<SlotDraft>) => void
  arrange: Arrange
}

/** Prescription is a slot's rows and cues, edited in place; a fault stands at its field and what was typed stays. */
export function Prescription(props: Props) {
  const { client, session, slot, view, faults, mayPlan, held, setRow, setRest, setCues, setSlot, arrange } = props
  const [chosen, choose] = useState(0)
  const rows = rowsOf(slot, view)
  const at = Math.min(chosen, rows.length - 1)
  const row = rows[at]
  const proposal = useProposal(client, slot, rows)
  const cueFault = faults.find((f) => f.field === 'cues')
  const others = faults.filter((f) => !f.field.startsWith(`rows[${at}].`)) // those of the row under the hand stand at its fields
  return (
    <section className={css.dose} aria-label="Dose and cues">
      {held && <p className="caveat">Locked: unlock it in the list to change it.</p>}
      {row && (
        <>
          {view.rows.length > 1 && (
            <Rows view={view} at={at} choose={choose} arrange={mayPlan ? arrange : undefined} faults={others} />
          )}
          <RowFields
            row={row}
            at={at}
            view={view}
            rest={restOf(session, view, row)}
            grips={proposal?.grips ?? []}
            fault={(field) => faultOf(faults, field, at)}
            mayPlan={mayPlan}
            set={(label, part) => setRow(label, at, part)}
            setRest={(seconds) => setRest(at, seconds)}
          />
          {view.rows.length <= 1 && mayPlan && (
            <Rows view={view} at={at} choose={choose} arrange={arrange} faults={[]} />
          )}
        </>
      )}
      {faults.some((f) => f.field === 'rows') && (
        <span className="fault" role="alert">
          {faults.find((f) => f.field === 'rows')?.reason}
        </span>
      )}
      <Hands
        slot={slot}
        view={view}
        proposal={proposal}
        mayPlan={mayPlan}
        fault={faults.find((f) => f.field === 'starts')?.reason}
        setSlot={setSlot}
        arrange={arrange}
      />
      {mayPlan && (
        <Proposed
          proposal={proposal}
          load={rows[0]?.load}
          cues={slot.cues}
          take={(load) => setRow('load', 0, { load })}
          setCues={setCues}
        />
      )}
      {mayPlan && proposal?.fit.fit === 'not_known' && (
        <CleanReps
          key={`${slot.movement} ${JSON.stringify(slot.settings)}`}
          client={client}
          slot={slot}
          wear={(movement, settings) => setSlot({ movement, settings })}
        />
      )}
      <Cues
        key={slot.id}
        movement={slot.movement}
        cues={slot.cues}
        mayPlan={mayPlan}
        set={setCues}
        fault={cueFault?.reason}
      />
      {(cueFault?.asks || slot.cue_reason) && (
        <CueReason
          reason={slot.cue_reason ?? ''}
          readOnly={!mayPlan}
          set={(cue_reason) => setSlot({ cue_reason: cue_reason || undefined })}
        />
      )}
    </section>
  )
}
