import { useMemo } from 'react'
import type { SessionView } from '../api/client'
import { sessionThere } from '../saving/kinds'
import { useDoc, useSaving } from '../saving/useDoc'

export type { Draft } from '../saving/kinds'

/** useDraft is a session while it is edited. */
export function useDraft(client: string, session: SessionView) {
  const { kinds } = useSaving()
  const there = useMemo(() => sessionThere(session), [session])
  const { doc, ...rest } = useDoc(kinds.session, [client, session.id], there)
  return { draft: doc.value, doc, ...rest }
}
