import { useEffect, useState } from 'react'
import { api, Problem, problemOf, timed, type SetUpView, type Worn } from '../../api/client'
import { useLatest } from '../../api/latest'

/** useFit asks what a set-up does: one request in flight, the latest wins, the old view stays until then. */
export function useFit(
  worn: Worn,
  turning: string,
): { view: SetUpView | null; problem: Problem | null; again: () => void } {
  const [state, setState] = useState<{ view: SetUpView | null; problem: Problem | null }>({ view: null, problem: null })
  const [turn, setTurn] = useState(0)
  const latest = useLatest()
  const key = JSON.stringify(worn)
  useEffect(() => {
    const asked = JSON.parse(key) as Worn
    latest(async () => {
      try {
        const answer = await timed(api.POST('/fit', { body: { ...asked, turning } }))
        setState({ view: answer.data.view, problem: null })
      } catch (e) {
        const problem = problemOf(e)
        setState((s) => ({ ...s, problem }))
      }
    })
  }, [key, turning, turn, latest])
  return { ...state, again: () => setTurn((t) => t + 1) }
}
