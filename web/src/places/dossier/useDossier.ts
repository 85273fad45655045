import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useSyncExternalStore } from 'react'
import type { DossierFields, DossierView } from '../../api/client'
import { putFresh, queries, touched } from '../../api/queries'
import type { Doc } from '../../saving/doc'
import { useSaving } from '../../saving/useDoc'

export type Field = keyof DossierFields

/**
 * useDossier reads a dossier and saves its fields one by one; a field that somebody else changed is never written
 * over.
 */
export function useDossier(client: string) {
  const cache = useQueryClient()
  const { outbox, kinds } = useSaving()
  const query = useQuery(queries.dossier(client))
  useSyncExternalStore(outbox.subscribe, outbox.version)
  const fields: Partial<Record<Field, Doc<unknown, unknown>>> = outbox.under(kinds.field, [client])
  const keep = useCallback(
    (view: DossierView) => {
      putFresh(cache, queries.dossier(client).queryKey, view)
      touched(cache, ['dossier'], ['dossier', client])
    },
    [cache, client],
  )
  const server = query.data?.dossier
  /** change saves a field; the value it was takes back what was not saved. */
  const change = (field: Field, value: unknown) => {
    const id = [client, field]
    const was: unknown = server?.[field]
    outbox.open(kinds.field, id, { value: was, base: was })
    outbox.do(kinds.field, id, { did: 'edit', value, label: '', now: Date.now() })
  }
  /** settle ends a clash: theirs stays, or mine is written over what they wrote. */
  const settle = (field: Field, which: 'mine' | 'theirs') => {
    outbox.do(kinds.field, [client, field], { did: 'settle', which })
    if (which === 'theirs') void query.refetch()
  }
  return { query, fields, change, settle, keep }
}

export type Edit = ReturnType<typeof useDossier>

/** valueOf is a field as it is on screen: what was typed, else what is kept. */
export function valueOf<F extends Field>(edit: Edit, field: F): DossierFields[F] {
  const typed = edit.fields[field]
  return (typed ? typed.value : edit.query.data!.dossier[field]) as DossierFields[F]
}
