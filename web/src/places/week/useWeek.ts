import { useMemo, useState } from 'react'
import { api, got, Problem, type WeekView } from '../../api/client'
import { useLatest } from '../../api/latest'
import { weekThere, type Drafts } from '../../saving/kinds'
import { useDoc, useSaving } from '../../saving/useDoc'

export type { Drafts } from '../../saving/kinds'

/** useWeek is a week while it is edited, saved as a whole or not at all; look shows what another one would come to. */
export function useWeek(client: string, from: string, arrived: WeekView) {
  const { kinds } = useSaving()
  const latest = useLatest()
  const there = useMemo(() => weekThere(arrived), [arrived])
  const { doc, edit, ...rest } = useDoc(kinds.week, [client, from], there)
  const [seen, setSeen] = useState({ of: arrived, view: arrived })
  if (seen.of !== arrived) setSeen({ of: arrived, view: arrived })
  const look = (next: Drafts) => {
    latest(async (overtaken) => {
      try {
        const view = await got(
          api.POST('/clients/{client}/week', {
            params: { path: { client }, query: { of: from } },
            body: { sessions: next },
          }),
        )
        if (!overtaken()) setSeen((s) => ({ ...s, view }))
      } catch (e) {
        if (!(e instanceof Problem)) throw e // a preview that fails shows nothing new; saving will say why
      }
    })
  }
  return { drafts: doc.value, doc, view: seen.view, edit: (next: Drafts) => edit('', () => next), look, ...rest }
}
