import { useEffect, useMemo, useState } from 'react'
import {
  api,
  got,
  Problem,
  type DraftAsked,
  type DraftPrices,
  type DraftsView,
  type KeptSlot,
  type WeekDraft,
} from '../../../api/client'

const prepared = new Set<string>()

/** prepare has the server look for what may be used for a client, before a draft is asked for. */
export function prepare(client: string, from: string) {
  const key = `${client} ${from}`
  if (prepared.has(key)) return
  prepared.add(key)
  api
    .POST('/clients/{client}/draft', {
      params: { path: { client }, query: { of: from } },
      body: { sessions: [], stage: 'first' },
    })
    .catch(() => prepared.delete(key)) // asking for the draft will say why
}

/** Taste is what a coach asked of drafts: it stays while the week is open. */
export interface Taste {
  pattern: string
  seed: number
  /** the most slots of a day */
  slots: number
  keep: KeptSlot[]
  forbid: string[]
  levels: Record<string, 'maintain' | 'build' | 'prioritise'>
}

export const plain: Taste = { pattern: '', seed: 0, slots: 6, keep: [], forbid: [], levels: {} }

// Tastes outlive the drafts that are closed and opened again, not the page.
const tastes = new Map<string, Taste>()

/** useTaste is what is asked of the drafts of one client's week. */
export function useTaste(client: string, from: string): [Taste, (next: Taste) => void] {
  const key = `${client} ${from}`
  const [taste, setTaste] = useState(() => tastes.get(key) ?? plain)
  return [
    taste,
    (next) => {
      tastes.set(key, next)
      setTaste(next)
    },
  ]
}

const stages = ['first', 'more', 'final'] as const

/** askedOf is a board and a taste as the server reads them. */
export function askedOf(board: WeekDraft[], taste: Taste): Omit<DraftAsked, 'stage'> {
  return {
    sessions: board.map(({ id, name, planned_on, warm_up_min, intent, locked, combos, slots, version }) => ({
      id,
      name,
      planned_on,
      warm_up_min,
      intent,
      locked,
      combos,
      slots,
      version,
    })),
    pattern: taste.pattern,
    seed: taste.seed,
    slots: taste.slots,
    keep: taste.keep,
    forbid: taste.forbid,
    levels: taste.levels,
  }
}

/**
 * useDrafts composes three weeks in stages, each shown as it comes; what is asked anew stops what is under way. The
 * first answer's question about targets stays up until something else is asked.
 */
export function useDrafts(client: string, from: string, board: WeekDraft[], taste: Taste) {
  const body = useMemo(() => askedOf(board, taste), [board, taste])
  const asked = JSON.stringify(body)
  const [state, setState] = useState<{
    asked: string
    view?: DraftsView
    asks?: DraftsView['asks']
    prices?: DraftPrices
    failed?: string
  }>({ asked: '' })
  const [again, setAgain] = useState(0)
  useEffect(() => {
    const gone = new AbortController()
    const at = { params: { path: { client }, query: { of: from } }, signal: gone.signal }
    const run = async () => {
      try {
        for (const stage of stages) {
          const view = await got(api.POST('/clients/{client}/draft', { ...at, body: { ...body, stage } }))
          if (gone.signal.aborted) return
          setState((s) => ({ ...s, asked, view, asks: stage === 'first' ? view.asks : s.asks, failed: undefined }))
          if (view.empty) return
        }
        const prices = await got(
          api.POST('/clients/{client}/draft/prices', { ...at, body: { ...body, stage: 'final' } }),
        )
        if (!gone.signal.aborted) setState((s) => ({ ...s, prices }))
      } catch (e) {
        if (gone.signal.aborted) return
        if (!(e instanceof Problem)) throw e
        setState((s) => ({ ...s, asked, failed: e.words }))
      }
    }
    void run()
    return () => gone.abort()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- asked is body, written down
  }, [client, from, asked, again])
  const now = state.asked === asked
  return {
    view: state.view,
    asks: now ? state.asks : undefined,
    prices: now && state.view?.stage === 'final' ? state.prices : undefined,
    failed: now ? state.failed : undefined,
    /** looking says whether better weeks may still come */
    looking: !now || (!state.failed && !state.view?.empty && state.view?.stage !== 'final'),
    again: () => setAgain(again + 1),
  }
}
