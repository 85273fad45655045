import { queries } from '../../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import { type SlotDraft } from '../../../api/client'
import type { Dose } from '../../../prescription/rows'

/** useProposal asks what the tool would prescribe for a slot: load, cues, grips, who begins. */
export function useProposal(client: string, slot: SlotDraft, dose: Dose) {
  // Where the hand differs the load is that of the first set, the weakest grip.
  const asked = useDeferredValue(
    JSON.stringify({
      movement: slot.movement,
      settings: slot.settings,
      first: dose.hands?.[0],
      reps_low: dose.reps_low,
      reps_high: dose.reps_high,
      reserve: dose.reserve,
      sets: dose.sets,
      method: dose.method?.id,
    }),
  )
  const proposal = useQuery(queries.propose(client, asked))
  return proposal.data
}
