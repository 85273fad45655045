import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got } from '../../api/client'
import { putFresh, queries } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import leavesCss from '../../ui/leaves.module.css'
import { Preferences } from '../../ui/Preferences'

/** HowWeTrain is how the studio likes to train; a client's Dossier overrides it. */
export function HowWeTrain({ locked }: { locked: boolean }) {
  const cache = useQueryClient()
  const studio = useQuery(queries.studio())
  const { run, why } = useWrite(async (preferences: Record<string, string>) => {
    putFresh(cache, queries.studio().queryKey, await got(api.PUT('/studio/preferences', { body: { preferences } })))
    await cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'studio' })
  })
  if (!studio.data) return null
  const { axes, preferences } = studio.data
  return (
    <section className={leavesCss.leaf} aria-label="How we train">
      <h2>How we train</h2>
      <p className="caveat">
        The studio’s own defaults, where a client’s Dossier says nothing else. They shape new slots; what is there gets
        findings.
      </p>
      <Preferences
        axes={axes}
        chosen={preferences}
        inherited={(axis) => ({ whose: 'usual', choice: axes.find((a) => a.id === axis)!.choices[0]!.id })}
        locked={locked}
        choose={(next) => void run(next)}
      />
      {why && <p className="fault">{why}</p>}
    </section>
  )
}
