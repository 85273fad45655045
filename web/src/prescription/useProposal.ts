import { useQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import type { Row, SlotDraft } from '../api/client'
import { queries } from '../api/queries'

/** useProposal asks what the tool would prescribe for a slot: load, cues, grips, who begins. */
export function useProposal(client: string, slot: SlotDraft, rows: Row[]) {
  const first = rows[0]
  // Where the hand differs the load is that of the first row, the weakest grip.
  const hand =
    first && (first.movement || first.settings) ? { movement: first.movement, settings: first.settings } : undefined
  const asked = useDeferredValue(
    JSON.stringify({
      movement: slot.movement,
      settings: slot.settings,
      first: hand,
      reps_low: first?.reps_low,
      reps_high: first?.reps_high,
      reserve: first?.reserve,
      sets: rows.reduce((n, r) => n + r.sets, 0),
      method: first?.method?.id,
    }),
  )
  return useQuery({ ...queries.propose(client, asked), enabled: first !== undefined }).data
}
