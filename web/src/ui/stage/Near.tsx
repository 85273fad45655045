import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { type Worn } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { Slice } from '../../figures/Slice'
import { clsx } from 'clsx'
import css from './stage.module.css'

/** Near lists the nearest set-ups with what is kept and lost; for a client, only what the room allows if asked. */
export function Near({
  worn,
  wear,
}: {
  worn: Worn
  wear: (movement: string, settings: Record<string, number | string>) => void
}) {
  const { right } = useCatalogue()
  const [all, setAll] = useState(false)
  const [room, setRoom] = useState(false)
  const asked = useDeferredValue(JSON.stringify({ ...worn, room }))
  const near = useQuery(queries.near(asked))
  const list = near.data?.near ?? []
  return (
    <section aria-label="Equivalents">
      <h2>The nearest instead</h2>
      {worn.client && (
        <label className="near-room">
          <input type="checkbox" checked={room} onChange={(e) => setRoom(e.target.checked)} /> only what the room has
        </label>
      )}
      {list.slice(0, all ? 10 : 3).map((n) => (
        <div key={n.name} className={clsx('finding', css.near, n.same_idea && css.same)}>
          <Slice geometry={right} view={n.glyph.slice} size={36} />
          <div>
            <button type="button" className="link" onClick={() => wear(n.movement, n.settings)}>
              {n.name}
            </button>
            {n.same_idea && <p>Nearly the same idea.</p>}
            <p>
              {n.keeps} {n.loses}
            </p>
            {n.lacks.length > 0 && <p className="warn">The room lacks {n.lacks.join(' and ')}.</p>}
          </div>
        </div>
      ))}
      {list.length > 3 && (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `All ${list.length}`}
        </button>
      )}
    </section>
  )
}
