import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useRef, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { type ClientCard } from '../../api/client'
import { useKeys } from '../../app/keys'
import { useCatalogue, useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { Slice } from '../../figures/Slice'
import { clsx } from 'clsx'
import css from './wall.module.css'

const NewClient = lazy(async () => ({ default: (await import('./NewClient')).NewClient }))

/** Wall is every client as a slice of what the next session gives, today's first. */
export function Wall() {
  const clients = useQuery(queries.clients())
  const me = useMe()
  const wall = useRef<HTMLElement>(null)
  const [adding, setAdding] = useState(false)
  const step = (by: number) => {
    const cards = [...(wall.current?.querySelectorAll<HTMLElement>('a[data-client]') ?? [])]
    const here = cards.indexOf(document.activeElement as HTMLElement)
    cards[Math.min(cards.length - 1, Math.max(0, here + by))]?.focus()
  }
  useKeys({
    ArrowRight: { does: 'next client', run: () => step(1) },
    ...(me.data?.may_plan && { n: { does: 'a new client', run: () => setAdding(true) } }),
    ArrowLeft: { does: 'previous client', run: () => step(-1) },
    f: { does: 'on the floor with today’s first', run: () => location.assign('/floor') },
  })
  if (!clients.data) return <Waiting query={clients} />
  const all = clients.data.clients
  const today = all.filter((c) => c.today)
  const later = all.filter((c) => !c.today)
  return (
    <main className={css.wall} ref={wall}>
      <h1 className="only-read">Clients</h1>
      <Row title={today.length > 0 ? 'Training today' : ''} clients={today}>
        <a className={css.floor} href="/floor">
          On the floor
        </a>
      </Row>
      <Row title="Coming up" clients={later} />
      {all.length === 0 && <p>No clients yet. Add the first by the name she wants to be called.</p>}
      {me.data?.may_plan &&
        (adding ? (
          <Suspense>
            <NewClient />
          </Suspense>
        ) : (
          <p className={css.newClient}>
            <Link to="/clients/next-week">Who has no next week</Link> ·{' '}
            <button type="button" className="link" onClick={() => setAdding(true)}>
              A new client …
            </button>
          </p>
        ))}
      <p className={css.legend}>
        Each slice is the right arm from above: how many effective sets a week each head is to get; the fuller, the
        more, and what gets most is outlined. Where nothing is set under Priorities yet it is what the next session
        gives.
      </p>
    </main>
  )
}

function Row({ title, clients, children }: { title: string; clients: ClientCard[]; children?: ReactNode }) {
  const { right } = useCatalogue()
  if (clients.length === 0) return null
  return (
    <section>
      <h2 className={css.title}>
        {title} {children}
      </h2>
      <div className={css.cards}>
        {clients.map((c) => (
          <Link
            key={c.id}
            data-client={c.id}
            to={`/clients/${c.id}/week`}
            className={c.today ? clsx(css.clientCard, css.today) : css.clientCard}
          >
            <Slice geometry={right} view={c.slice} size={152} places={1} unit="effective sets" />
            <span className={css.clientCardText}>
              <span className={css.clientCardName}>{c.name}</span>
              <span className={css.clientCardWish}>{c.wish}</span>
              {c.first ? (
                <span className={css.clientCardMost}>{c.first}</span>
              ) : (
                c.most && <span className={css.clientCardMost}>most for {c.most}</span>
              )}
              <span className={css.clientCardWhen}>
                {c.when}
                {c.minutes > 0 && ` · ${Math.round(c.minutes)} min`} · {c.room}
              </span>
              <span className={css.clientCardState}>
                {c.trained}
                {!c.screened && <b className="warn"> · not screened</b>}
                {c.screened && c.blocked && <b className="warn"> · no sheet: see the dossier</b>}
                {c.findings > 0 && <b className="warn"> · {c.findings} to mend</b>}
              </span>
            </span>
          </Link>
        ))}
      </div>
    </section>
  )
}
