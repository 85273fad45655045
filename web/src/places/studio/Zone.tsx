import { putFresh, queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got } from '../../api/client'
import { useMe } from '../../app/me'
import css from './studio.module.css'
import { useWrite } from '../../api/useWrite'

/** Zone is in which time zone the studio's days are counted; an owner sets it. */
export function Zone() {
  const me = useMe()
  const cache = useQueryClient()
  const studio = useQuery(queries.studio())
  const { run: set, why } = useWrite(async (next: string) => {
    putFresh(cache, queries.studio().queryKey, await got(api.PUT('/studio/zone', { body: { zone: next } })))
    touched(cache, ['studio'], ['studio'])
  })
  if (!studio.data) return null
  const { zone, today } = studio.data
  const zones = [...new Set([zone, 'UTC', ...Intl.supportedValuesOf('timeZone')])]
  return (
    <section aria-label="The studio’s days">
      <h2>The studio’s days</h2>
      <p className="margin-line">
        Today is {today}.{' '}
        {me.data?.role === 'owner' ? (
          <label>
            Counted in{' '}
            <select className={css.zone} value={zone} onChange={(e) => void set(e.target.value)}>
              {zones.map((z) => (
                <option key={z} value={z}>
                  {z.replaceAll('_', ' ')}
                </option>
              ))}
            </select>
          </label>
        ) : (
          <>Counted in {zone.replaceAll('_', ' ')}.</>
        )}
      </p>
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
    </section>
  )
}
