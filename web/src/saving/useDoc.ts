import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { createContext, useCallback, useContext, useEffect, useState, useSyncExternalStore } from 'react'
import type { Doc, There } from './doc'
import { kindsOf, type Kinds } from './kinds'
import { Outbox, type Kind } from './outbox'

export interface Saving {
  outbox: Outbox
  kinds: Kinds
}

/** savingFor makes the outbox of an application. */
export function savingFor(queries: QueryClient): Saving {
  const kinds = kindsOf(queries)
  const outbox = new Outbox(Object.values(kinds))
  outbox.signedOut = () => queries.setQueryData(['me'], null)
  return { outbox, kinds }
}

export const SavingContext = createContext<Saving | null>(null)

/** useSaving gives the outbox; where none is around, one of its own (a part shown by itself). */
export function useSaving(): Saving {
  const queries = useQueryClient()
  const around = useContext(SavingContext)
  const [own] = useState(() => around ?? savingFor(queries))
  return around ?? own
}

/**
 * useDoc is one document while it is edited: every edit shows at once, is kept in the browser and sent a moment later. What
 * arrives from the server while nothing is unsaved here is taken.
 */
export function useDoc<T, B>(kind: Kind<T, B>, id: string[], there: There<T, B>) {
  const { outbox } = useSaving()
  const key = id.join('/')
  // Opened before it is read, so that what was left here is there at the first sight of it.
  const [first] = useState(() => new Map<string, Doc<T, B>>())
  if (!first.has(key)) first.set(key, outbox.open(kind, id, there))
  const doc = useSyncExternalStore(outbox.subscribe, () => outbox.get(kind, id) ?? first.get(key)!)
  const path = useCallback(() => key.split('/'), [key])
  useEffect(() => {
    outbox.open(kind, path(), there)
    return outbox.show(kind, path())
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is there when it is opened; what arrives later comes by the next effect
  }, [outbox, kind, path])
  useEffect(() => {
    outbox.do(kind, path(), { did: 'arrive', there })
  }, [outbox, kind, path, there])
  const edit = useCallback(
    (label: string, change: (value: T) => T) => {
      const now = outbox.open(kind, path(), there)
      outbox.do(kind, path(), { did: 'edit', value: change(now.value), label, now: Date.now() })
    },
    [outbox, kind, path, there],
  )
  const say = useCallback((did: 'undo' | 'redo' | 'itIsSo') => outbox.do(kind, path(), { did }), [outbox, kind, path])
  const settle = useCallback(
    (which: 'mine' | 'theirs') => outbox.do(kind, path(), { did: 'settle', which }),
    [outbox, kind, path],
  )
  return {
    doc,
    edit,
    undo: () => say('undo'),
    redo: () => say('redo'),
    itIsSo: () => say('itIsSo'),
    settle,
    canUndo: doc.past.length > 0,
    canRedo: doc.future.length > 0,
  }
}
