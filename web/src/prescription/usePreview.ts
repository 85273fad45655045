import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import {
  api,
  Problem,
  problemOf,
  timed,
  type Preview,
  type SessionView,
  type SetUpView,
  type SlotDraft,
} from '../api/client'
import { useLatest } from '../api/latest'
import type { Draft } from './useDraft'

const same = (slot: Pick<SlotDraft, 'movement' | 'settings'>) =>
  slot.movement + JSON.stringify(Object.entries(slot.settings).sort(([a], [b]) => a.localeCompare(b)))

export interface Previewed {
  session: SessionView
  /** the active slot's set-up; null until it has been computed once */
  active: SetUpView | null
  faults: Preview['faults']
  problem: Problem | null
}

/**
 * usePreview asks what a draft comes to. One request is in flight, the latest
 * wins; while a setting is turned the answer brings its neighbouring steps, so
 * that the next frame needs no wait.
 */
export function usePreview(
  client: string,
  session: SessionView,
  draft: Draft,
  activeId: string | null,
  turning: string,
): Previewed {
  const [last, setLast] = useState<Previewed>({ session, active: null, faults: [], problem: null })
  const [views, setViews] = useState<Map<string, SetUpView>>(new Map())
  const latest = useLatest()
  const arrived = useRef<{ at: number; serverMs: number } | null>(null)
  const active = draft.slots.find((s) => s.id === activeId)

  useEffect(() => {
    let gone = false
    latest(async (overtaken) => {
      try {
        const answer = await timed(
          api.POST('/clients/{client}/sessions/{session}/preview', {
            params: { path: { client, session: session.id } },
            body: { ...draft, active: activeId ?? undefined, turning },
          }),
        )
        if (gone && overtaken()) return // a newer one is about to go
        const fitted = answer.data.active
        arrived.current = { at: answer.at, serverMs: answer.serverMs }
        if (fitted) {
          setViews((old) => {
            const next = new Map([...old].slice(-60))
            for (const v of [fitted.view, ...fitted.neighbours.map((n) => n.view)]) next.set(same(v), v)
            return next
          })
        }
        setLast({
          session: answer.data.session,
          active: fitted?.view ?? null,
          faults: answer.data.faults,
          problem: null,
        })
      } catch (e) {
        const problem = problemOf(e)
        setLast((l) => ({ ...l, problem }))
      }
    })
    return () => {
      gone = true
    }
  }, [client, session.id, draft, activeId, turning, latest])

  // How long the server and the frame took, as user timings.
  useLayoutEffect(() => {
    const a = arrived.current
    if (!a) return
    arrived.current = null
    requestAnimationFrame(() => {
      const now = performance.now()
      performance.measure('musculus:server', { start: Math.max(0, a.at - a.serverMs), duration: a.serverMs })
      performance.measure('musculus:frame', { start: a.at, end: now })
    })
  }, [last])

  const shown = active
    ? (views.get(same(active)) ?? (last.active?.movement === active.movement ? last.active : null))
    : null
  return { ...last, active: shown }
}
