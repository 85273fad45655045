import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useSyncExternalStore } from 'react'
import { putFresh } from '../../../api/fresh'
import {
  api,
  got,
  Problem,
  type Clash,
  type DossierFields,
  type DossierView,
  type FieldFault,
} from '../../../api/client'
import { keep as keepIn, readKept } from '../../../app/kept'
import { useSignedOut } from '../../../app/me'

export type Field = keyof DossierFields

/** Pending is a field that is not saved yet: what it was, what it shall be and how far that has come. */
export interface Pending {
  was: unknown
  value: unknown
  is: 'saving' | 'away' | 'refused' | 'clash'
  why: string
  faults: FieldFault[]
  theirs?: Clash
}

type Fields = Partial<Record<Field, Pending>>

// What is typed outlives the page: a lost sign-in, a reload, another place.
const pending = new Map<string, Fields>()
const listeners = new Set<() => void>()
const none: Fields = {}
const storeKey = (client: string) => `dossier ${client}`

function pendingOf(client: string): Fields {
  let found = pending.get(client)
  if (!found) {
    found = readKept<Fields>(sessionStorage, storeKey(client)) ?? none
    pending.set(client, found)
  }
  return found
}

function put(client: string, field: Field, p: Pending | null) {
  const next = { ...pendingOf(client) }
  if (p) next[field] = p
  else delete next[field]
  pending.set(client, next)
  keepIn(sessionStorage, storeKey(client), Object.keys(next).length === 0 ? null : next)
  listeners.forEach((l) => l())
}

function subscribe(listener: () => void) {
  listeners.add(listener)
  return () => {
    listeners.delete(listener)
  }
}

const tryAgainMs = 2500

/** useDossier reads a dossier and saves its fields one by one; a field that somebody else changed is never written over. */
export function useDossier(client: string) {
  const queries = useQueryClient()
  const signedOut = useSignedOut()
  const query = useQuery({
    queryKey: ['dossier', client],
    queryFn: () => got(api.GET('/clients/{client}/dossier', { params: { path: { client } } })),
  })
  const fields = useSyncExternalStore(subscribe, () => pendingOf(client))
  const keep = useCallback(
    (view: DossierView) => {
      putFresh(queries, ['dossier', client], view)
      for (const key of ['client', 'priorities', 'library', 'near', 'present'])
        void queries.invalidateQueries({ queryKey: [key] })
      void queries.invalidateQueries({ queryKey: ['clients'] })
    },
    [queries, client],
  )
  const send = useCallback(
    async (field: Field) => {
      const p = pendingOf(client)[field]
      if (!p) return
      try {
        const view = await got(
          api.PATCH('/clients/{client}/dossier', {
            params: { path: { client } },
            body: { changes: [{ field, was: p.was, value: p.value }] },
          }),
        )
        if (pendingOf(client)[field]?.value === p.value) put(client, field, null)
        keep(view)
      } catch (e) {
        const problem = e instanceof Problem ? e : new Problem(0, String(e))
        if (pendingOf(client)[field]?.value !== p.value) return // typed over meanwhile
        const is = problem.away || problem.status === 401 ? 'away' : problem.status === 409 ? 'clash' : 'refused'
        put(client, field, { ...p, is, why: problem.message, faults: problem.faults, theirs: problem.clashes[0] })
        if (problem.status === 401) signedOut()
      }
    },
    [client, keep, signedOut],
  )
  const away = Object.entries(fields).some(([, p]) => p.is === 'away')
  useEffect(() => {
    if (!away) return
    const timer = setInterval(() => {
      for (const [field, p] of Object.entries(pendingOf(client))) if (p.is === 'away') void send(field as Field)
    }, tryAgainMs)
    return () => clearInterval(timer)
  }, [away, client, send])
  const server = query.data?.dossier
  /** change saves a field; the same value as the server's drops what was pending. */
  const change = (field: Field, value: unknown) => {
    const old = pendingOf(client)[field]
    const was = old ? old.was : server?.[field]
    if (JSON.stringify(value) === JSON.stringify(was) && (!old || old.is === 'refused')) {
      put(client, field, null)
      return
    }
    put(client, field, { was, value, is: 'saving', why: '', faults: [] })
    void send(field)
  }
  /** settle ends a clash: theirs stays, or mine is written over what they wrote. */
  const settle = (field: Field, which: 'mine' | 'theirs') => {
    const p = pendingOf(client)[field]
    if (!p?.theirs) return
    if (which === 'theirs') {
      put(client, field, null)
      void query.refetch()
      return
    }
    put(client, field, { ...p, was: p.theirs.now, is: 'saving', theirs: undefined })
    void send(field)
  }
  return { query, fields, change, settle, keep }
}

export type Edit = ReturnType<typeof useDossier>

/** valueOf is a field as it is on screen: what was typed, else what is kept. */
export function valueOf<F extends Field>(edit: Edit, field: F): DossierFields[F] {
  const p = edit.fields[field]
  return (p ? p.value : edit.query.data!.dossier[field]) as DossierFields[F]
}
