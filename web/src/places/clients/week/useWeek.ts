import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, problemOf, type WeekDraft, type WeekView } from '../../../api/client'
import { useLatest } from '../../../api/latest'
import { useSignedOut } from '../../../app/me'

export type Drafts = WeekDraft[]

export type WeekState =
  | { is: 'saved'; at: number }
  | { is: 'saving' }
  | { is: 'away'; why: string }
  | { is: 'refused'; why: string }
  | { is: 'asked'; question: string }

/** draftsOf takes what is edited out of a week's view. */
export function draftsOf(view: WeekView): Drafts {
  return view.sessions.map(({ id, version, name, planned_on, warm_up_min, intent, locked, combos, slots }) => ({
    id,
    version,
    name,
    planned_on,
    warm_up_min,
    intent,
    locked,
    combos,
    slots,
  }))
}

const content = (d: WeekDraft) => JSON.stringify({ ...d, version: 0, write: undefined })
const againMs = 2500
const mostUndo = 100

/**
 * useWeek holds a week while it is edited: every edit shows at once, is saved as
 * a whole or not at all, and can be undone. Somebody else's save is never written
 * over: theirs comes up and the edit is told to be lost from the board.
 */
export function useWeek(client: string, of: string) {
  const queries = useQueryClient()
  const signedOut = useSignedOut()
  const latest = useLatest()
  const path = { client }
  const query = useQuery({
    queryKey: ['week', client, of],
    queryFn: () => got(api.GET('/clients/{client}/week', { params: { path, query: { of } } })),
    staleTime: 0,
  })
  const [drafts, setDrafts] = useState<Drafts | null>(null)
  const [view, setView] = useState<WeekView | null>(null)
  const [state, setState] = useState<WeekState>({ is: 'saved', at: 0 })
  const [past, setPast] = useState<Drafts[]>([])
  const [future, setFuture] = useState<Drafts[]>([])
  const kept = useRef<Map<string, { version: number; content: string }>>(new Map())
  const wanted = useRef<Drafts | null>(null)
  const sure = useRef<Drafts | null>(null) // what was asked about and is so
  const writes = useRef<Map<string, string>>(new Map())
  // Sessions taken out here: as they were, and the version they were taken out as once that is saved.
  const gone = useRef<Map<string, { draft: WeekDraft; version?: number }>>(new Map())

  const take = useCallback((v: WeekView) => {
    kept.current = new Map(v.sessions.map((s, i) => [s.id, { version: s.version, content: content(draftsOf(v)[i]) }]))
    setView(v)
  }, [])

  // What the server has comes up unless something is still being saved.
  const arrived = query.data
  const [seen, setSeen] = useState<WeekView | undefined>(undefined)
  if (arrived && arrived !== seen && wanted.current === null) {
    setSeen(arrived)
    setDrafts(draftsOf(arrived))
    setView(arrived)
  }
  useEffect(() => {
    if (arrived && wanted.current === null)
      kept.current = new Map(
        arrived.sessions.map((s, i) => [s.id, { version: s.version, content: content(draftsOf(arrived)[i]) }]),
      )
  }, [arrived])

  const save = useCallback(
    (next: Drafts) => {
      wanted.current = next
      latest(async (overtaken) => {
        const changed = next.filter((d) => kept.current.get(d.id)?.content !== content(d))
        const out = [...gone.current.values()]
          .filter((g) => g.version === undefined && kept.current.has(g.draft.id))
          .map((g) => ({ ...g.draft, removed: true }))
        if (changed.length + out.length === 0) {
          wanted.current = null
          setState({ is: 'saved', at: Date.now() })
          return
        }
        setState({ is: 'saving' })
        const sessions = [...changed, ...out].map((d) => {
          const version = kept.current.get(d.id)?.version ?? gone.current.get(d.id)?.version ?? d.version
          const key = `${d.id} ${version} ${content(d)}`
          if (!writes.current.has(key)) writes.current.set(key, uuidv7()) // the same content over the same version is the same write
          return { ...d, version, write: writes.current.get(key)! }
        })
        for (;;) {
          try {
            const v = await got(
              api.PUT('/clients/{client}/week', {
                params: { path: { client }, query: { of } },
                body: { sessions, sure: sure.current === next || undefined },
              }),
            )
            take(v)
            for (const r of v.removed) {
              const g = gone.current.get(r.id)
              gone.current.set(r.id, { draft: g?.draft ?? out.find((d) => d.id === r.id)!, version: r.version })
            }
            if (!overtaken()) {
              wanted.current = null
              setDrafts(draftsOf(v))
              setState({ is: 'saved', at: Date.now() })
            }
            for (const key of ['session', 'client', 'sheet']) void queries.invalidateQueries({ queryKey: [key] })
            void queries.invalidateQueries({ queryKey: ['clients'] })
            return
          } catch (e) {
            const p = problemOf(e)
            if (p.status === 401) signedOut()
            if (p.asksWhether) {
              setState({ is: 'asked', question: p.ask!.question })
              return
            }
            if (p.away && !overtaken()) {
              setState({ is: 'away', why: p.message })
              await new Promise((r) => setTimeout(r, againMs))
              continue
            }
            if (p.away) return
            wanted.current = null
            setState({
              is: 'refused',
              why:
                p.status === 409
                  ? `${p.message}. The board shows what is there now; do it again where it still fits.`
                  : p.message,
            })
            if (p.status === 409) void query.refetch()
            return
          }
        }
      })
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- query.refetch is stable
    [client, of, latest, queries, signedOut, take],
  )

  /** itIsSo answers what was asked of the week as it stands. */
  const itIsSo = () => {
    if (!drafts) return
    sure.current = drafts
    save(drafts)
  }
  const put = (next: Drafts) => {
    const there = new Set(next.map((d) => d.id))
    for (const d of drafts ?? []) if (!there.has(d.id)) gone.current.set(d.id, { draft: d })
    // Nothing is forgotten of one that comes back but unsaved: its version is needed.
    for (const id of there) if (gone.current.get(id)?.version === undefined) gone.current.delete(id)
    setDrafts(next)
    save(next)
  }
  const edit = (next: Drafts) => {
    if (!drafts) return
    setPast((p) => [...p.slice(-mostUndo), drafts])
    setFuture([])
    put(next)
  }
  const step = (from: Drafts[], to: (f: Drafts[]) => void, back: (f: (x: Drafts[]) => Drafts[]) => void) => {
    const next = from[from.length - 1]
    if (!next || !drafts) return
    to(from.slice(0, -1))
    back((x) => [...x, drafts])
    put(next)
  }
  /** look shows what a week would come to, without keeping it. */
  const look = (next: Drafts) => {
    latest(async (overtaken) => {
      try {
        const v = await got(
          api.POST('/clients/{client}/week', { params: { path: { client }, query: { of } }, body: { sessions: next } }),
        )
        if (!overtaken()) setView(v)
      } catch {
        // a preview that fails shows nothing new; saving will say why
      }
    })
  }
  return {
    query,
    drafts,
    view,
    state,
    edit,
    itIsSo,
    look,
    undo: () => step(past, setPast, setFuture),
    redo: () => step(future, setFuture, setPast),
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  }
}
