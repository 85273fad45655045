import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, problemOf, type Combo, type FieldFault, type SessionView, type SlotDraft } from '../../../api/client'
import { keep as keepIn, readKept } from '../../../app/kept'
import { useSignedOut } from '../../../app/me'

export interface Draft {
  id: string
  name: string
  planned_on: string
  warm_up_min: number
  locked?: boolean
  intent?: '' | 'heavy' | 'light'
  combos?: Combo[]
  slots: SlotDraft[]
}

export type SaveState =
  | { is: 'saved'; at: string; by: string }
  | { is: 'unsaved' }
  | { is: 'saving' }
  | { is: 'away'; why: string }
  | { is: 'refused'; why: string; faults: FieldFault[] }
  | { is: 'asked'; question: string }
  | { is: 'stale'; theirs: SessionView }

/** draftOf takes what is edited out of a session's view. */
export function draftOf(s: SessionView): Draft {
  return {
    id: s.id,
    name: s.name,
    planned_on: s.planned_on,
    warm_up_min: s.warm_up_min,
    intent: s.intent,
    locked: s.locked,
    combos: s.combos,
    slots: s.slots.map(({ id, movement, settings, rows, cues, cue_reason, combo, starts, locked }) => ({
      id,
      movement,
      settings,
      rows,
      cues,
      cue_reason,
      combo,
      starts,
      locked,
    })),
  }
}

interface Kept {
  version: number
  draft: Draft
}

// One that was kept before slots had rows is another thing.
const place = (session: string) => `draft 2 ${session}`

/** keptDraft is the unsaved draft that this browser kept of a session, if any. */
export const keptDraft = (session: string) => readKept<Kept>(localStorage, place(session))

const keep = (session: string, kept: Kept | null) => keepIn(localStorage, place(session), kept)

const quietMs = 500 // after the last edit, before it is saved
const againMs = 2000 // before a save is tried again while the database is away
const mostUndo = 200

/**
 * useDraft holds a session while it is edited: every edit can be undone, is
 * kept in the browser at once and saved a moment later; a lost database, a lost
 * sign-in or somebody else's save never costs what was typed.
 */
export function useDraft(client: string, session: SessionView) {
  const queries = useQueryClient()
  const signedOut = useSignedOut()
  const [start] = useState(() => keptDraft(session.id))
  const [draft, setDraft] = useState<Draft>(start?.draft ?? draftOf(session))
  const [past, setPast] = useState<Draft[]>(start ? [draftOf(session)] : [])
  const [future, setFuture] = useState<Draft[]>([])
  const [state, setState] = useState<SaveState>(
    start ? { is: 'unsaved' } : { is: 'saved', at: session.saved_at, by: session.saved_by },
  )
  const version = useRef(start?.version ?? session.version)
  const latest = useRef(draft)
  const write = useRef<{ id: string; draft: Draft } | null>(null)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const busy = useRef(false)
  const gone = useRef(false)
  const lastEdit = useRef({ label: '', at: 0 })
  const sure = useRef<Draft | null>(null) // what was asked about and is so
  const save = useRef<() => Promise<void>>(async () => {})

  const put = useCallback(
    (next: Draft) => {
      latest.current = next
      setDraft(next)
      setState((s) => (s.is === 'stale' ? s : { is: 'unsaved' }))
      keep(session.id, { version: version.current, draft: next })
      clearTimeout(timer.current)
      timer.current = setTimeout(() => void save.current(), quietMs)
    },
    [session.id],
  )

  useEffect(() => {
    save.current = async () => {
      if (busy.current) return
      busy.current = true
      setState((s) => (s.is === 'away' ? s : { is: 'saving' }))
      const sent = latest.current
      // The same content sent again is the same write: it is saved once.
      if (write.current?.draft !== sent) write.current = { id: uuidv7(), draft: sent }
      try {
        const saved = await got(
          api.PUT('/clients/{client}/sessions/{session}', {
            params: { path: { client, session: session.id } },
            body: {
              ...sent,
              version: version.current,
              write: write.current.id,
              sure: sure.current === sent || undefined,
            },
          }),
        )
        version.current = saved.version
        write.current = null
        queries.setQueryData(['session', session.id], saved)
        void queries.invalidateQueries({ queryKey: ['client', client] })
        void queries.invalidateQueries({ queryKey: ['clients'] })
        if (latest.current === sent) {
          keep(session.id, null)
          setState({ is: 'saved', at: saved.saved_at, by: saved.saved_by })
        } else {
          keep(session.id, { version: version.current, draft: latest.current })
        }
      } catch (e) {
        const p = problemOf(e)
        if (p.away) {
          setState({ is: 'away', why: p.message })
          // Once the page is left one try is enough: what is kept is saved when the session is opened again.
          if (!gone.current) timer.current = setTimeout(() => void save.current(), againMs)
        } else if (p.status === 401) {
          signedOut()
        } else if (p.status === 409 && p.current) {
          setState({ is: 'stale', theirs: p.current })
        } else if (p.asksWhether) {
          setState({ is: 'asked', question: p.ask!.question })
        } else {
          setState({ is: 'refused', why: p.message, faults: p.faults })
        }
      } finally {
        busy.current = false
      }
      if (latest.current !== sent && !gone.current) timer.current = setTimeout(() => void save.current(), quietMs)
    }
  })

  // What was kept unsaved is saved now; leaving ends no save that is due.
  useEffect(() => {
    gone.current = false
    if (start) timer.current = setTimeout(() => void save.current(), quietMs)
    return () => {
      gone.current = true
      clearTimeout(timer.current)
      if (keptDraft(session.id)) void save.current()
    }
  }, [start, session.id])

  // Somebody else saved and nothing is unsaved here: show theirs.
  useEffect(() => {
    if (session.version > version.current && state.is === 'saved') {
      version.current = session.version
      latest.current = draftOf(session)
      setDraft(latest.current)
      setPast([])
      setFuture([])
      setState({ is: 'saved', at: session.saved_at, by: session.saved_by })
    }
  }, [session, state.is])

  /** edit changes the draft; edits of one label within a second are undone together. */
  const edit = useCallback(
    (label: string, change: (d: Draft) => Draft) => {
      const before = latest.current
      const next = change(before)
      if (next === before) return
      const now = Date.now()
      const together = label !== '' && label === lastEdit.current.label && now - lastEdit.current.at < 1000
      lastEdit.current = { label, at: now }
      if (!together) setPast((p) => [...p, before].slice(-mostUndo))
      setFuture([])
      put(next)
    },
    [put],
  )

  const undo = useCallback(() => {
    if (past.length === 0) return
    lastEdit.current = { label: '', at: 0 }
    setFuture([latest.current, ...future])
    put(past[past.length - 1])
    setPast(past.slice(0, -1))
  }, [past, future, put])

  const redo = useCallback(() => {
    if (future.length === 0) return
    setPast([...past, latest.current])
    put(future[0])
    setFuture(future.slice(1))
  }, [past, future, put])

  /** settle ends a conflict: keep mine over theirs, or take theirs. */
  const settle = useCallback(
    (which: 'mine' | 'theirs') => {
      if (state.is !== 'stale') return
      version.current = state.theirs.version
      write.current = null
      if (which === 'theirs') {
        setPast([...past, latest.current])
        latest.current = draftOf(state.theirs)
        setDraft(latest.current)
        keep(session.id, null)
        queries.setQueryData(['session', session.id], state.theirs)
        setState({ is: 'saved', at: state.theirs.saved_at, by: state.theirs.saved_by })
      } else {
        setState({ is: 'unsaved' })
        void save.current()
      }
    },
    [state, past, queries, session.id],
  )

  /** itIsSo answers what was asked of the draft as it stands. */
  const itIsSo = useCallback(() => {
    sure.current = latest.current
    void save.current()
  }, [])

  return { draft, itIsSo, edit, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0, state, settle }
}
